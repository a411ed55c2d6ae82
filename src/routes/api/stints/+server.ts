import { json } from '@sveltejs/kit';
import { stintsAsCsv } from '$lib/log/csv';
import { stintSchema, type StoredStint } from '$lib/log/messages';
import { receiveFile } from '$lib/server/archive/files';
import { answerOf } from '$lib/server/desk/desk';
import { streamOf } from '$lib/server/streams';
import { addStints, type LogTaken, readStints, stintsBefore } from '$lib/server/stints';
import { readBody, refusalResponse } from '$lib/server/request';
import { created, database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** When a stint began is in a file as its player's clock said it; what else is the server's own is not in it. */
const leaveOut = (name: string, value: unknown) =>
  name === 'time' || name === 'revision' ? undefined : value;

const FILE = { csv: 'text/csv; charset=utf-8', json: 'application/json' } as const;

async function* encoded(parts: AsyncGenerator<string>): AsyncGenerator<Uint8Array> {
  for await (const part of parts) yield new TextEncoder().encode(part);
}

type Portions = AsyncGenerator<readonly StoredStint[]>;

/** A list in JSON, from before its first element to after its last. */
async function* asJson(
  portions: Portions,
  { before, after, write }: { before: string; after: string; write: (one: StoredStint) => string },
): AsyncGenerator<string> {
  let between = before;
  for await (const portion of portions) {
    if (portion.length === 0) continue;
    yield between + portion.map(write).join(',');
    between = ',';
  }
  yield (between === ',' ? '' : before) + after;
}

/** The same as comma-separated values, with one row of heads. */
async function* asCsv(portions: Portions): AsyncGenerator<string> {
  yield stintsAsCsv([]).trimEnd();
  for await (const portion of portions) {
    const lines = stintsAsCsv(portion);
    if (portion.length > 0) yield lines.slice(lines.indexOf('\r\n'));
  }
}

const OLDER = 200;

/**
 * The log, from `?since=` a time in milliseconds on; as a file with `?as=csv` or `?as=json`; or the next that
 * are older than one, `?before=` its time and id with a comma between.
 */
export const GET: RequestHandler = async ({ url, locals }) => {
  const before = /^(-?\d{1,16}),([\w-]{1,200})$/u.exec(url.searchParams.get('before') ?? '');
  if (before) {
    const stint = { time: Number(before[1]), id: before[2] ?? '' };
    return json(await stintsBefore(database(locals), stint, OLDER));
  }
  const since = Number(url.searchParams.get('since') ?? NaN);
  const portions = readStints(database(locals), Number.isFinite(since) ? since : undefined);
  const as = url.searchParams.get('as');
  if (as !== 'csv' && as !== 'json') {
    const all = asJson(portions, { before: '[', after: ']', write: (one) => JSON.stringify(one) });
    return new Response(streamOf(encoded(all)), { headers: { 'content-type': FILE.json } });
  }
  const content =
    as === 'csv'
      ? asCsv(portions)
      : asJson(portions, {
          before: '{"stints": [\n',
          after: '\n]}',
          write: (one) => JSON.stringify(one, leaveOut),
        });
  return new Response(streamOf(encoded(content)), {
    headers: {
      'content-type': FILE[as],
      'content-disposition': `attachment; filename="corvel-log.${as}"`,
    },
  });
};

export const POST: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, stintSchema);
  if (!body.ok) return refusalResponse(body.refusal);
  const [id = ''] = await addStints(database(locals), [body.value]);
  return created(id);
};

/** Takes a log that was written out; what is there already is not added again. */
export const PUT: RequestHandler = async ({ request, locals }) => {
  database(locals);
  const received = await receiveFile(request);
  if (!received)
    return refusalResponse({ status: 413, code: 'too_large', message: 'This log is too large.' });
  try {
    const told = (await answerOf({ kind: 'log', file: received.file })) as LogTaken;
    if (told.kind === 'log') return json({ added: told.added, known: told.known });
    return refusalResponse({ status: 422, code: 'invalid_request', message: told.message });
  } finally {
    await received.letGo();
  }
};

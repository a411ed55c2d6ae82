import { json } from '@sveltejs/kit';
import { stintsAsCsv } from '$lib/log/csv';
import { importSchema, stintSchema } from '$lib/log/messages';
import { addStints, listStints } from '$lib/server/stints';
import { readBody, refusalResponse } from '$lib/server/request';
import { created, database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** When a stint began is in a file as its player's clock said it; what else is the server's own is not in it. */
const leaveOut = (name: string, value: unknown) =>
  name === 'time' || name === 'revision' ? undefined : value;

const FILE = { csv: 'text/csv; charset=utf-8', json: 'application/json' } as const;

/** The log, from `?since=` a time in milliseconds on; as a file with `?as=csv` or `?as=json`. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const since = Number(url.searchParams.get('since') ?? NaN);
  const stints = await listStints(database(locals), Number.isFinite(since) ? since : -Infinity);
  const as = url.searchParams.get('as');
  if (as !== 'csv' && as !== 'json') return json(stints);
  const content = as === 'csv' ? stintsAsCsv(stints) : JSON.stringify({ stints }, leaveOut, 2);
  return new Response(content, {
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

const LIMIT = 12 * 2 ** 20;

/** Takes a log that was written out; what is there already is not added again. */
export const PUT: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, importSchema, LIMIT);
  if (!body.ok) return refusalResponse(body.refusal);
  const db = database(locals);
  const key = (one: { at: string; chart: string; exercise: string }) =>
    `${Date.parse(one.at)} ${one.chart} ${one.exercise}`;
  const known = new Set((await listStints(db)).map(key));
  const fresh = body.value.stints.filter((stint) => !known.has(key(stint)));
  await addStints(db, fresh);
  return json({ added: fresh.length, known: body.value.stints.length - fresh.length });
};

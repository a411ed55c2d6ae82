import { json } from '@sveltejs/kit';
import { ARCHIVE_LIMIT, receiveFile, sentArchive } from '$lib/server/archive/files';
import { changeSays, MODES } from '$lib/server/archive/take';
import { answerOf } from '$lib/server/desk/desk';
import type { Taken } from '$lib/server/desk/jobs';
import { type Refusal, refusalResponse } from '$lib/server/request';
import { database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

const refused = (message: string, more: Partial<Refusal> = {}): Response =>
  refusalResponse({ status: 422, code: 'invalid_request', message, ...more });

/** The whole book as a zip. */
export const GET: RequestHandler = async ({ locals }) => {
  database(locals);
  const made = new Date().toISOString();
  return new Response(await sentArchive(made), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="corvel-${made.slice(0, 10)}.zip"`,
    },
  });
};

/** Takes an archive, merging or replacing; with `?preview=1` it only says what would change. */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  database(locals);
  const mode = MODES.find((one) => one === (url.searchParams.get('mode') ?? 'merge'));
  if (!mode) return refused('An archive is taken by mode=merge or mode=replace.', { path: 'mode' });
  const received = await receiveFile(request);
  if (!received)
    return refused(`An archive holds at most ${ARCHIVE_LIMIT / 2 ** 20} MB.`, {
      status: 413,
      code: 'too_large',
    });
  const { file, letGo } = received;
  try {
    const kind = url.searchParams.has('preview') ? 'preview' : 'take';
    const told = await answerOf({ kind, file, mode, now: new Date().toISOString() });
    return answered(told as Taken, mode);
  } finally {
    await letGo();
  }
};

function answered(told: Taken, mode: string): Response {
  switch (told.kind) {
    case 'taken':
      return json({ mode, changes: told.changes, sentence: changeSays(told.changes) });
    case 'refused':
      return refused(told.message);
    case 'unsafe':
      return refused(
        'No backup could be made first, so nothing was changed: see that the disk has room, and try again.',
        { status: 503, code: 'unavailable' },
      );
  }
}

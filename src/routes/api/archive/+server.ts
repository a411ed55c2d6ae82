import { json } from '@sveltejs/kit';
import {
  ARCHIVE_LIMIT,
  changeSays,
  MODES,
  previewArchive,
  readArchive,
  takeArchive,
  writeArchive,
} from '$lib/server/archive';
import { readBytes, refusalResponse } from '$lib/server/request';
import { database } from '$lib/server/respond';
import { backUpBefore, dataFolder } from '$lib/server/store';
import type { RequestHandler } from './$types';

/** The whole book as a zip. */
export const GET: RequestHandler = async ({ locals }) => {
  const now = new Date().toISOString();
  const bytes = await writeArchive(database(locals), dataFolder(), now);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="corvel-${now.slice(0, 10)}.zip"`,
    },
  });
};

/** Takes an archive, merging or replacing; with `?preview=1` it only says what would change. */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  const mode = MODES.find((one) => one === (url.searchParams.get('mode') ?? 'merge'));
  if (!mode) {
    const message = 'An archive is taken by mode=merge or mode=replace.';
    return refusalResponse({ status: 422, code: 'invalid_request', message, path: 'mode' });
  }
  const body = await readBytes(request, ARCHIVE_LIMIT);
  if (!body.ok) return refusalResponse(body.refusal);
  const read = readArchive(body.value);
  if (!read.ok)
    return refusalResponse({ status: 422, code: 'invalid_request', message: read.message });
  const db = database(locals);
  const preview = url.searchParams.has('preview');
  if (!preview && !backUpBefore('import')) {
    const message =
      'No backup could be made first, so nothing was changed: see that the disk has room, and try again.';
    return refusalResponse({ status: 503, code: 'unavailable', message });
  }
  const changes = preview
    ? await previewArchive(db, read.archive, mode)
    : await takeArchive(db, dataFolder(), read.archive, mode, new Date().toISOString());
  return json({ mode, changes, sentence: changeSays(changes) });
};

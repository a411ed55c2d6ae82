import { markSound, soundsBeside } from '$lib/server/licks';
import { readSoundFile, refusalResponse } from '$lib/server/request';
import { database, noSuchTake } from '$lib/server/respond';
import { keepSound, readSound, removeSound, SOUNDS_LIMIT } from '$lib/server/sounds';
import { dataFolder } from '$lib/server/folder';
import type { RequestHandler } from './$types';

/** The sound of a take as a WAV file. */
export const GET: RequestHandler = async ({ params }) => {
  const bytes = await readSound(dataFolder(), params.id);
  if (!bytes) return noSuchTake();
  return new Response(bytes, { headers: { 'content-type': 'audio/wav' } });
};

export const PUT: RequestHandler = async ({ params: { id }, request, locals }) => {
  const body = await readSoundFile(request);
  if (!body.ok) return refusalResponse(body.refusal);
  const db = database(locals);
  const kept = await keepSound(dataFolder(), id, body.value, {
    others: () => soundsBeside(db, id),
    mark: () => markSound(db, id, body.value.byteLength),
  });
  if (kept === 'kept') return new Response(null, { status: 204 });
  if (kept === 'missing') return noSuchTake();
  const message = `The sounds of takes may fill ${SOUNDS_LIMIT / 2 ** 20} MB: drop one first.`;
  return refusalResponse({ status: 413, code: 'too_large', message });
};

export const DELETE: RequestHandler = async ({ params, locals }) => {
  if (!(await markSound(database(locals), params.id, null))) return noSuchTake();
  await removeSound(dataFolder(), params.id);
  return new Response(null, { status: 204 });
};

import { stintSave } from '$lib/log/messages';
import { isNewId, readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchStint, saved } from '$lib/server/respond';
import { deleteStint, saveStint } from '$lib/server/stints';
import type { RequestHandler } from './$types';

/** Saves a stint on a revision; on 0 it is made, under an id of the page's own. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, stintSave);
  if (!body.ok) return refusalResponse(body.refusal);
  const { revision, ...stint } = body.value;
  if (revision === 0 && !isNewId(params.id)) return noSuchStint();
  const result = await saveStint(database(locals), params.id, revision, stint);
  return saved(result, noSuchStint, 'This stint was');
};

export const DELETE: RequestHandler = async ({ params, locals }) =>
  (await deleteStint(database(locals), params.id))
    ? new Response(null, { status: 204 })
    : noSuchStint();

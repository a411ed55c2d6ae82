import { json } from '@sveltejs/kit';
import { lickSaveRequest } from '$lib/licks/messages';
import { deleteLick, findLick, saveLick } from '$lib/server/licks';
import { isNewId, readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchLick, saved } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ params, locals }) => {
  const lick = await findLick(database(locals), params.id);
  return lick ? json(lick) : noSuchLick();
};

/** Saves a lick on a revision; on 0 it is made, under an id of the page's own. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, lickSaveRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  const { revision, ...lick } = body.value;
  if (revision === 0 && !isNewId(params.id)) return noSuchLick();
  const result = await saveLick(database(locals), params.id, revision, lick);
  return saved(result, noSuchLick, 'This lick was');
};

export const DELETE: RequestHandler = async ({ params, locals }) =>
  (await deleteLick(database(locals), params.id))
    ? new Response(null, { status: 204 })
    : noSuchLick();

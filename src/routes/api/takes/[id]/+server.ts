import { json } from '@sveltejs/kit';
import { takeRequest } from '$lib/licks/messages';
import { makeTake } from '$lib/server/licks';
import { isNewId, readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchTake } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** Makes a take under an id of the page's own; one that is sent twice is made once. */
export const PUT: RequestHandler = async ({ params, request, locals }) => {
  if (!isNewId(params.id)) return noSuchTake();
  const body = await readBody(request, takeRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  const { takeOf, ...lick } = body.value;
  return (await makeTake(database(locals), params.id, lick, takeOf))
    ? json({ revision: 1 })
    : noSuchTake();
};

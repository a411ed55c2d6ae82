import { json } from '@sveltejs/kit';
import { putRequest } from '$lib/licks/messages';
import { placesFor, putLick } from '$lib/server/lickPlaces';
import { findLick } from '$lib/server/licks';
import { readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchChart, noSuchLick } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** Where the lick fits. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const lick = await findLick(database(locals), params.id);
  if (!lick) return noSuchLick();
  return json((await placesFor(database(locals), lick)) ?? { places: [], more: 0 });
};

/** Puts it there. */
export const POST: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, putRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  const lick = await findLick(database(locals), params.id);
  if (!lick) return noSuchLick();
  const result = await putLick(database(locals), lick, body.value);
  if (result.kind === 'missing') return noSuchChart();
  if (result.kind === 'refused') {
    return refusalResponse({ status: 409, code: 'conflict', message: result.message });
  }
  return json({ chart: result.chart });
};

import { json } from '@sveltejs/kit';
import { takeRequest } from '$lib/licks/messages';
import { createLick, listTakes } from '$lib/server/licks';
import { readBody, refusalResponse } from '$lib/server/request';
import { created, database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** The takes of a chart, `?of=` its id, the latest first. */
export const GET: RequestHandler = async ({ url, locals }) =>
  json(await listTakes(database(locals), url.searchParams.get('of') ?? ''));

export const POST: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, takeRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  const { takeOf, ...lick } = body.value;
  return created(await createLick(database(locals), lick, takeOf));
};

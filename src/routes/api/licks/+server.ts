import { json } from '@sveltejs/kit';
import { lickRequest } from '$lib/licks/messages';
import { createLick, listLicks } from '$lib/server/licks';
import { readBody, refusalResponse } from '$lib/server/request';
import { created, database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals }) => json(await listLicks(database(locals)));

export const POST: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, lickRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  return created(await createLick(database(locals), body.value));
};

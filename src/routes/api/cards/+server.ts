import { json } from '@sveltejs/kit';
import { answerSchema } from '$lib/drills/cards';
import { answerCard } from '$lib/server/cards';
import { readBody, refusalResponse } from '$lib/server/request';
import { database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

/** Takes an answer to a card; answers when it comes back. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, answerSchema);
  if (!body.ok) return refusalResponse(body.refusal);
  const { id, right } = body.value;
  const due = await answerCard(database(locals), id, right, Date.now());
  return json({ due: new Date(due).toISOString() });
};

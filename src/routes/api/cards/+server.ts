import { json } from '@sveltejs/kit';
import { answerSchema } from '$lib/drills/cards';
import { answerCard, type CardState } from '$lib/server/cards';
import { readBody, refusalResponse } from '$lib/server/request';
import { database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

const told = ({ seen, due }: CardState) => ({ seen, due: new Date(due).toISOString() });

/** Takes an answer to a card; answers when it comes back. One that was answered elsewhere meanwhile is a conflict. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, answerSchema);
  if (!body.ok) return refusalResponse(body.refusal);
  const result = await answerCard(database(locals), body.value, Date.now());
  if (result.kind === 'saved') return json(told(result.card));
  const message = 'This card was answered elsewhere since it was dealt here.';
  return json(
    { error: { code: 'conflict', message }, current: told(result.current) },
    { status: 409 },
  );
};

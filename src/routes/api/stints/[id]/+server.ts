import { stintSchema } from '$lib/log/messages';
import { changeStint, deleteStint } from '$lib/server/stints';
import { readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchStint } from '$lib/server/respond';
import type { RequestHandler } from './$types';

const done = (found: boolean): Response =>
  found ? new Response(null, { status: 204 }) : noSuchStint();

export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, stintSchema);
  if (!body.ok) return refusalResponse(body.refusal);
  return done(await changeStint(database(locals), params.id, body.value));
};

export const DELETE: RequestHandler = async ({ params, locals }) =>
  done(await deleteStint(database(locals), params.id));

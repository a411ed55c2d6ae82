import { createRequest } from '$lib/charts/messages';
import { createChart } from '$lib/server/charts';
import { readBody, refusalResponse } from '$lib/server/request';
import { created, database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, createRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  return created(await createChart(database(locals), body.value.text, body.value.plan));
};

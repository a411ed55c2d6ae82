import { createRequest } from '$lib/study/messages';
import { createChart } from '$lib/server/charts';
import { readBody, refusalResponse } from '$lib/server/request';
import { created, database } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals }) => {
  const body = await readBody(request, createRequest);
  if (!body.ok) return refusalResponse(body.refusal);
  const { text, plan, view } = body.value;
  const made = await createChart(database(locals), text, plan, view && JSON.stringify(view));
  return created(made);
};

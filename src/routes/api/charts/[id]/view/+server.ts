import { saveView } from '$lib/server/charts';
import { readBody, refusalResponse } from '$lib/server/request';
import { database, noSuchChart } from '$lib/server/respond';
import { viewSchema } from '$lib/study/view';
import type { RequestHandler } from './$types';

export const PUT: RequestHandler = async ({ params, request, locals }) => {
  const body = await readBody(request, viewSchema);
  if (!body.ok) return refusalResponse(body.refusal);
  const kept = await saveView(database(locals), params.id, body.value);
  return kept ? new Response(null, { status: 204 }) : noSuchChart();
};

import { markOpened } from '$lib/server/charts';
import { database, noSuchChart } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ params, locals }) =>
  (await markOpened(database(locals), params.id))
    ? new Response(null, { status: 204 })
    : noSuchChart();

import { restoreLick } from '$lib/server/licks';
import { database, noSuchLick } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ params, locals }) =>
  (await restoreLick(database(locals), params.id))
    ? new Response(null, { status: 204 })
    : noSuchLick();

import { restoreStint } from '$lib/server/stints';
import { database, noSuchStint } from '$lib/server/respond';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ params, locals }) =>
  (await restoreStint(database(locals), params.id))
    ? new Response(null, { status: 204 })
    : noSuchStint();

import { stageSchema } from '$lib/live/messages';
import { liveStream, tellAll } from '$lib/server/live';
import { readBody, refusalResponse } from '$lib/server/request';
import type { RequestHandler } from './$types';

/** What others save and play, as it happens. */
export const GET: RequestHandler = () => {
  const stream = liveStream();
  if (!stream) {
    const message = 'Too many browsers are open on this server: close one.';
    return refusalResponse({ status: 503, code: 'busy', message });
  }
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    },
  });
};

/** Says where a stage is to those that follow it. */
export const POST: RequestHandler = async ({ request }) => {
  const body = await readBody(request, stageSchema);
  if (!body.ok) return refusalResponse(body.refusal);
  tellAll(body.value);
  return new Response(null, { status: 204 });
};

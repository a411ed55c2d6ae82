import { error } from '@sveltejs/kit';
import { sharing } from '$lib/server/share';
import type { RequestHandler } from './$types';

/** The certificate, for a device to trust: public by its nature. */
export const GET: RequestHandler = () => {
  const found = sharing();
  if (!found) error(404, 'This server is not shared.');
  return new Response(found.certificate, {
    headers: {
      'content-type': 'application/x-x509-ca-cert',
      'content-disposition': 'attachment; filename="corvel.crt"',
    },
  });
};

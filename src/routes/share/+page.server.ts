import qrcode from 'qrcode';
import { isHere, sharing } from '$lib/server/share';
import type { PageServerLoad } from './$types';

/** What another device needs is shown to who sits at this machine. */
export const load: PageServerLoad = async ({ request }) => {
  const found = sharing();
  if (!found || !isHere(request)) return { sharing: null };
  const { address, fingerprint, passcode } = found;
  const code = await qrcode.toDataURL(address, { margin: 2, scale: 8 });
  return { sharing: { address, fingerprint, passcode, code } };
};

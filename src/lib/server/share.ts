/** Serving the local network: what `npm start -- --share` has made ready, and who sits at this machine. */
import { z } from 'zod';

const sharingSchema = z.object({
  /** Where other devices open Corvel. */
  address: z.string(),
  /** SHA-256 of what a device trusts, in pairs. */
  fingerprint: z.string(),
  passcode: z.string(),
  /** What a device trusts, as PEM: it signs this machine’s certificate, whatever its address. */
  certificate: z.string(),
});
type Sharing = z.output<typeof sharingSchema>;

/** How the network is served; null where it is not. */
export function sharing(): Sharing | null {
  const kept = process.env['CORVEL_SHARE'];
  if (!kept) return null;
  const read = sharingSchema.safeParse(JSON.parse(kept));
  return read.success ? read.data : null;
}

/** Whether a request came by the port that only this machine reaches: the server marks those itself. */
export const isHere = ({ headers }: Request): boolean => {
  const mark = process.env['CORVEL_LOCAL'];
  return Boolean(mark) && headers.get('x-corvel-local') === mark;
};

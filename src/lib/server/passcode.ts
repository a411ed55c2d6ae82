/** The passcode that guards an instance reachable from other machines. */
import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';

export const PASSCODE_COOKIE = 'corvel-passcode';
const ATTEMPTS_PER_MINUTE = 5;
const MINUTE = 60_000;
const REMEMBERED_ADDRESSES = 1_000;

/** Made anew at every start: a restart asks for the passcode again. */
const signingKey = randomBytes(32);
const failures = new Map<string, { count: number; since: number }>();

export const passcodeInForce = (): string | null => process.env['CORVEL_PASSCODE'] || null;

const sign = (passcode: string): string =>
  createHmac('sha256', signingKey).update(passcode).digest('base64url');

function equal(a: string, b: string): boolean {
  const left = createHmac('sha256', signingKey).update(a).digest();
  const right = createHmac('sha256', signingKey).update(b).digest();
  return timingSafeEqual(left, right);
}

/** Whether a cookie was signed by this process for the passcode in force. */
export function cookieOpens(cookie: string | undefined): boolean {
  const passcode = passcodeInForce();
  return passcode === null || (cookie !== undefined && equal(cookie, sign(passcode)));
}

export type Attempt =
  | { readonly kind: 'open'; readonly cookie: string }
  | { readonly kind: 'wrong' }
  | { readonly kind: 'wait' };

/** Checks a passcode typed at an address; after five wrong ones in a minute it must wait. */
export function tryPasscode(typed: string, address: string, now = Date.now()): Attempt {
  const passcode = passcodeInForce();
  const failed = failures.get(address);
  const recent = failed !== undefined && now - failed.since < MINUTE ? failed : null;
  if (recent && recent.count >= ATTEMPTS_PER_MINUTE) return { kind: 'wait' };
  if (passcode !== null && equal(typed, passcode)) {
    failures.delete(address);
    return { kind: 'open', cookie: sign(passcode) };
  }
  if (failures.size > REMEMBERED_ADDRESSES) failures.clear();
  failures.set(address, { count: (recent?.count ?? 0) + 1, since: recent?.since ?? now });
  return { kind: 'wrong' };
}

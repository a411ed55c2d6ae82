/** The passcode that guards an instance reachable from other machines. */
import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';

export const PASSCODE_COOKIE = 'corvel-passcode';
/** Wrong passcodes in a minute, from one address and from all together. */
const PER_ADDRESS = 5;
const IN_ALL = 20;
const MINUTE = 60_000;
const REMEMBERED_ADDRESSES = 1_000;
const LOOPBACK = /^(?:(?:::ffff:)?127\.\d{1,3}\.\d{1,3}\.\d{1,3}|::1)$/u;

/**
 * Made anew at every start, so that a restart asks for the passcode again; where the network is served it is kept
 * with its certificate, and a device that was let in stays so.
 */
const kept = process.env['CORVEL_SIGNING'];
const signingKey = kept ? Buffer.from(kept, 'base64url') : randomBytes(32);

/** Seconds for which a device that was let in stays so; null until its browser is closed. */
export const COOKIE_LASTS: number | null = kept ? 390 * 86_400 : null;

interface Failures {
  readonly count: number;
  readonly since: number;
}

const failures = new Map<string, Failures>();
let allFailures: Failures = { count: 0, since: 0 };

const recent = (failed: Failures | undefined, now: number): Failures =>
  failed && now - failed.since < MINUTE ? failed : { count: 0, since: now };

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

type Attempt =
  | { readonly kind: 'open'; readonly cookie: string }
  | { readonly kind: 'wrong' }
  | { readonly kind: 'wait' };

/** Checks a passcode typed at an address; after too many wrong ones in a minute it must wait. */
export function tryPasscode(typed: string, address: string, now = Date.now()): Attempt {
  const passcode = passcodeInForce();
  const here = recent(failures.get(address), now);
  const everywhere = recent(allFailures, now);
  // What others try must not lock out who sits at this machine.
  const others = LOOPBACK.test(address) ? 0 : everywhere.count;
  if (here.count >= PER_ADDRESS || others >= IN_ALL) return { kind: 'wait' };
  if (passcode !== null && equal(typed, passcode)) {
    failures.delete(address);
    return { kind: 'open', cookie: sign(passcode) };
  }
  if (failures.size > REMEMBERED_ADDRESSES) failures.clear();
  failures.set(address, { ...here, count: here.count + 1 });
  allFailures = { ...everywhere, count: everywhere.count + 1 };
  return { kind: 'wrong' };
}

/** What the server has acknowledged, and who wants to hear of it. */
import * as z from 'zod/mini';
import { keep, kept, keysOf } from './storage';

export const fieldsSchema = z.record(z.string(), z.unknown());
export const acknowledgedSchema = z.object({ fields: fieldsSchema, revision: z.int() });
type Acknowledged = z.infer<typeof acknowledgedSchema>;

const PREFIX = 'corvel:acknowledged:';

/** By address; what an earlier page remembered is read once. */
const last = new Map(
  keysOf(PREFIX).flatMap((key) => {
    const stored = acknowledgedSchema.safeParse(kept(key));
    return stored.success ? [[key.slice(PREFIX.length), stored.data] as const] : [];
  }),
);
const listeners = new Map<string, Set<() => void>>();

/** Notes how the server now has it at an address; `remember` keeps that for pages that are older than that. */
export function acknowledge(path: string, now: Acknowledged, remember: boolean): void {
  last.set(path, now);
  if (remember) keep(PREFIX + path, now);
}

/** How the server is known to have it at an address; null where this browser does not know. */
export const acknowledgedAt = (path: string): Acknowledged | null => last.get(path) ?? null;

/** Calls back whenever something below an address was acknowledged; the answer ends it. */
export function onKept(path: string, tell: () => void): () => void {
  const heard = listeners.get(path) ?? new Set();
  listeners.set(path, heard.add(tell));
  return () => heard.delete(tell);
}

export function announce(path: string): void {
  for (const [prefix, heard] of listeners)
    if (path.startsWith(prefix)) for (const tell of heard) tell();
}

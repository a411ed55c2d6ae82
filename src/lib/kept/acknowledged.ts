/** What the server has acknowledged, and who wants to hear of it. */
import * as z from 'zod/mini';
import { keep, kept } from './storage';

export const fieldsSchema = z.record(z.string(), z.unknown());
export const acknowledgedSchema = z.object({ fields: fieldsSchema, revision: z.int() });
export type Acknowledged = z.infer<typeof acknowledgedSchema>;

const last = new Map<string, Acknowledged>();
const listeners = new Map<string, Set<() => void>>();

const keyOf = (path: string): string => `corvel:acknowledged:${path}`;

/** Notes how the server now has it at an address; `remember` keeps that for pages that are older than that. */
export function acknowledge(path: string, now: Acknowledged, remember: boolean): void {
  last.set(path, now);
  if (remember) keep(keyOf(path), now);
}

/** How the server is known to have it at an address; null where this browser does not know. */
export function acknowledgedAt(path: string): Acknowledged | null {
  const known = last.get(path);
  if (known) return known;
  const stored = acknowledgedSchema.safeParse(kept(keyOf(path)));
  return stored.success ? stored.data : null;
}

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

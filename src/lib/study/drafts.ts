/**
 * Edits kept in this browser until the server has acknowledged them: one draft for each page, so that
 * no tab throws away what another has not sent. A draft whose page is gone is taken up by the next.
 */
import * as z from 'zod/mini';
import type { StoredText } from './api';

const draftSchema = z.object({
  text: z.string(),
  plan: z.string(),
  revision: z.int(),
  /** When it was written, in milliseconds since 1970. */
  at: z._default(z.number(), 0),
});

type Draft = z.infer<typeof draftSchema>;

/** A page that has not written for this long is gone, where the browser cannot say. */
const SILENT = 15_000;

const ownId: string = Math.random().toString(36).slice(2, 12);
const prefixOf = (id: string): string => `corvel:draft:${id}:`;
const lockOf = (page: string): string => `corvel:page:${page}`;

/** Held for as long as this page lives, so that others can tell. */
let holding = false;
function holdPage(): void {
  if (holding || typeof navigator === 'undefined' || !('locks' in navigator)) return;
  holding = true;
  void navigator.locks.request(lockOf(ownId), () => new Promise(() => undefined));
}

/** Keeps a draft; whether the browser took it. */
export function keepDraft(id: string, draft: StoredText): boolean {
  holdPage();
  try {
    const { text, plan, revision } = draft;
    const written = { text, plan, revision, at: Date.now() };
    localStorage.setItem(prefixOf(id) + ownId, JSON.stringify(written));
    return true;
  } catch {
    // Storage is full or forbidden: the copy in memory still goes to the server.
    return false;
  }
}

export function dropDraft(id: string): void {
  try {
    localStorage.removeItem(prefixOf(id) + ownId);
  } catch {
    // Nothing was kept.
  }
}

function readDraft(key: string): Draft | null {
  try {
    const parsed = draftSchema.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null'));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}

const keptKey = (id: string): string => `corvel:kept:${id}`;

/** What the server last acknowledged, for a page that opens without it from an older copy. */
export function keepAcknowledged(id: string, { text, plan, revision }: StoredText): void {
  try {
    localStorage.setItem(keptKey(id), JSON.stringify({ text, plan, revision }));
  } catch {
    // The page may open a little older than it was.
  }
}

/** The same, where it is newer than what a page was given; what is not is dropped. */
export function newerAcknowledged(id: string, revision: number): StoredText | null {
  const kept = readDraft(keptKey(id));
  if (kept && kept.revision > revision) return kept;
  try {
    localStorage.removeItem(keptKey(id));
  } catch {
    // Nothing was kept.
  }
  return null;
}

function draftKeys(id: string): readonly string[] {
  try {
    return Object.keys(localStorage).filter(
      // Earlier versions kept one draft for a chart, under no page.
      (key) => key.startsWith(prefixOf(id)) || key === `corvel:draft:${id}`,
    );
  } catch {
    return [];
  }
}

/** How long a page that is just being left may hold its lock, in milliseconds. */
const LEAVING = 2_000;

/** Whether the page that wrote a draft is gone: its lock can be had, or it has long been silent. */
async function isGone(page: string, { at }: Draft): Promise<boolean> {
  if (!('locks' in navigator)) return Date.now() - at > SILENT;
  try {
    const signal = AbortSignal.timeout(LEAVING);
    await navigator.locks.request(lockOf(page), { signal }, () => undefined);
    return true;
  } catch {
    return false;
  }
}

/**
 * Takes up the newest draft of a page that is gone: it becomes this page's. Older ones wait for the
 * next visit, when this one has been settled.
 */
export async function adoptDraft(id: string): Promise<StoredText | null> {
  const kept = draftKeys(id).flatMap((key) => {
    const draft = readDraft(key);
    return draft && !key.endsWith(`:${ownId}`) ? [{ key, draft }] : [];
  });
  const gone = await Promise.all(
    kept.map(({ key, draft }) => isGone(key.slice(prefixOf(id).length), draft)),
  );
  const found = kept
    .filter((_, index) => gone[index])
    .sort((a, b) => b.draft.at - a.draft.at)
    .at(0);
  if (!found) return null;
  if (keepDraft(id, found.draft)) localStorage.removeItem(found.key);
  return found.draft;
}

/**
 * Edits kept in this browser until the server has acknowledged them: one draft for each page, so that
 * no tab throws away what another has not sent. A draft whose page is gone is taken up by the next.
 * Charts and licks are kept alike, each kind under its own name.
 */
import { dequal } from 'dequal/lite';
import * as z from 'zod/mini';
import { keep, kept, keysOf, letGo } from './storage';

/** What is edited, made on a revision. */
export type Revised<Content> = Content & { readonly revision: number };

/** A page that edits, as far as what an earlier one left asks of it. */
interface EditingPage<Content> {
  /** What it has, and on which revision. */
  readonly now: () => Revised<Content>;
  /** Whether nothing was edited on it yet. */
  readonly untouched: () => boolean;
  /** Takes what the server has acknowledged since the page was made. */
  readonly renew: (newer: Revised<Content>) => void;
  /** Goes on with a draft; `theirs` is what stands on the server where that was saved over the draft's ground. */
  readonly goOn: (draft: Revised<Content>, theirs: Revised<Content> | null) => void;
}

const stampSchema = z.object({
  revision: z.int(),
  /** When it was written, in milliseconds since 1970. */
  at: z._default(z.number(), 0),
});

/** A page that has not written for this long is gone, where the browser cannot say. */
const SILENT = 15_000;
/** How long a page that is just being left may hold its lock, in milliseconds. */
const LEAVING = 2_000;

const ownId: string = Math.random().toString(36).slice(2, 12);
const lockOf = (page: string): string => `corvel:page:${page}`;

/** Held for as long as this page lives, so that others can tell. */
let holding = false;
function holdPage(): void {
  if (holding || typeof navigator === 'undefined' || !('locks' in navigator)) return;
  holding = true;
  void navigator.locks.request(lockOf(ownId), () => new Promise(() => undefined));
}

/** Whether the page that wrote a draft is gone: its lock can be had, or it has long been silent. */
async function isGone(page: string, at: number): Promise<boolean> {
  if (!('locks' in navigator)) return Date.now() - at > SILENT;
  try {
    const signal = AbortSignal.timeout(LEAVING);
    await navigator.locks.request(lockOf(page), { signal }, () => undefined);
    return true;
  } catch {
    return false;
  }
}

/** The drafts of a kind: `draft` for charts, under which earlier versions kept them, `lick` for licks. */
export function draftsOf<Content extends object>(kind: string, schema: z.ZodMiniType<Content>) {
  const prefixOf = (id: string): string => `corvel:${kind}:${id}:`;
  const acknowledgedKey = (id: string): string =>
    kind === 'draft' ? `corvel:kept:${id}` : `corvel:kept:${kind}:${id}`;

  function read(key: string): { readonly draft: Revised<Content>; readonly at: number } | null {
    const value = kept(key);
    const stamp = stampSchema.safeParse(value);
    const content = schema.safeParse(value);
    if (!stamp.success || !content.success) return null;
    return { draft: { ...content.data, revision: stamp.data.revision }, at: stamp.data.at };
  }

  /** Keeps a draft; whether the browser took it: where not, the copy in memory still goes to the server. */
  function keepDraft(id: string, draft: Revised<Content>): boolean {
    holdPage();
    return keep(prefixOf(id) + ownId, { ...draft, at: Date.now() });
  }

  const drop = (id: string): void => letGo(prefixOf(id) + ownId);

  /** Keeps what the server last acknowledged, for a page that opens without it from an older copy. */
  const acknowledge = (id: string, content: Revised<Content>): boolean =>
    keep(acknowledgedKey(id), content);

  /** The same, where it is newer than what a page was given; what is not is dropped. */
  function newer(id: string, revision: number): Revised<Content> | null {
    const found = read(acknowledgedKey(id))?.draft;
    if (found && found.revision > revision) return found;
    letGo(acknowledgedKey(id));
    return null;
  }

  /**
   * Takes up the newest draft of a page that is gone: it becomes this page's. Older ones wait for the
   * next visit, when this one has been settled.
   */
  async function adopt(id: string): Promise<Revised<Content> | null> {
    // The first versions kept one draft for a chart, under no page.
    const single = prefixOf(id).slice(0, -1);
    const keys = keysOf(single).filter((key) => key === single || key.startsWith(`${single}:`));
    const found = keys.flatMap((key) => {
      const draft = key.endsWith(`:${ownId}`) ? null : read(key);
      return draft ? [{ key, ...draft }] : [];
    });
    const gone = await Promise.all(
      found.map(({ key, at }) => isGone(key.slice(prefixOf(id).length), at)),
    );
    const newest = found
      .filter((_, index) => gone[index])
      .sort((a, b) => b.at - a.at)
      .at(0);
    if (!newest) return null;
    if (keepDraft(id, newest.draft)) letGo(newest.key);
    return newest.draft;
  }

  /** Takes up what an earlier visit could not send. */
  async function resume(id: string, page: EditingPage<Content>): Promise<void> {
    // A page opened without its server may be older than what this browser saw acknowledged.
    const later = newer(id, page.now().revision);
    if (later && page.untouched()) page.renew(later);
    const draft = await adopt(id);
    // What was typed meanwhile is newer than any draft.
    if (!draft || !page.untouched()) return;
    const now = page.now();
    if (dequal({ ...draft, revision: now.revision }, now)) drop(id);
    // A draft made on a newer version than this page was given is of that one, and no conflict.
    else page.goOn(draft, draft.revision < now.revision ? now : null);
  }

  return { keep: keepDraft, drop, acknowledge, newer, adopt, resume };
}

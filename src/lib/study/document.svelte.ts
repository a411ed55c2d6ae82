/**
 * A chart being edited: its text and plan, undo and redo, and the saving of it. Every edit is kept
 * in this browser at once and saved within a second; a stale save is shown, never forced.
 */
import { createChart, findChart, saveChart, type StoredText } from './api';
import * as z from 'zod/mini';
import { draftsOf } from '$lib/kept/drafts';

/** `waiting`: the server did not answer in time; `locked`: it asks for its passcode again. */
export type SaveState =
  'saved' | 'saving' | 'offline' | 'waiting' | 'locked' | 'conflict' | 'refused';

interface Content {
  readonly text: string;
  readonly plan: string;
}

interface Step extends Content {
  /** Edits of one group within a burst are undone together; null for what is undone by itself. */
  readonly burst: { readonly group: string; readonly at: number } | null;
}

const same = (one: Content, other: Content): boolean =>
  one.text === other.text && one.plan === other.plan;

const chartDrafts = draftsOf('draft', z.object({ text: z.string(), plan: z.string() }));

const SAVE_DELAY = 350;
const RETRY_DELAY = 2_000;
const BURST = 1_000;

export function createDocument(id: string, stored: StoredText) {
  const start: Content = { text: stored.text, plan: stored.plan };
  let content = start;
  // Followed apart: what is read in the text need not be looked at when the plan changes.
  let text = $state(start.text);
  let plan = $state(start.plan);
  let saveState = $state<SaveState>('saved');
  let refusal = $state('');
  let theirs = $state.raw<StoredText | null>(null);
  let past = $state.raw<readonly Step[]>([]);
  let future = $state.raw<readonly Content[]>([]);
  let revision = stored.revision;
  let acknowledged = start;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let inFlight = false;
  /** Sent, and perhaps kept, though no answer came. */
  let unanswered: Content | null = null;
  let drafts = $state(true);

  const dirty = () => content !== acknowledged;

  function hold(next: Content) {
    content = next;
    ({ text, plan } = next);
  }

  function schedule(delay: number) {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), delay);
  }

  async function save(): Promise<void> {
    clearTimeout(timer);
    if (inFlight || theirs !== null || !dirty()) return;
    inFlight = true;
    saveState = 'saving';
    const sent = content;
    const outcome = await saveChart(id, { ...sent, revision });
    inFlight = false;
    switch (outcome.kind) {
      case 'saved':
        acknowledge(sent, outcome.revision);
        return;
      case 'conflict':
        meet(outcome.current);
        return;
      case 'away':
      case 'waiting':
      case 'locked':
        unanswered = sent;
        refusal = outcome.kind === 'away' ? (outcome.message ?? '') : '';
        saveState = outcome.kind === 'away' ? 'offline' : outcome.kind;
        schedule(RETRY_DELAY);
        return;
      case 'refused':
        saveState = 'refused';
        refusal = outcome.message;
    }
  }

  function acknowledge(kept: Content, at: number) {
    revision = at;
    acknowledged = kept;
    unanswered = null;
    chartDrafts.acknowledge(id, { ...kept, revision });
    if (dirty()) {
      drafts = chartDrafts.keep(id, { ...content, revision });
      saveState = 'saving';
      schedule(SAVE_DELAY);
    } else {
      chartDrafts.drop(id);
      saveState = 'saved';
    }
  }

  /** Another version stands on the server: one's own, or the same words, need no question. */
  function meet(current: StoredText) {
    const own = [content, unanswered].find((one) => one !== null && same(one, current));
    if (own) {
      acknowledge(own, current.revision);
      return;
    }
    theirs = current;
    saveState = 'conflict';
  }

  function change(next: Content) {
    hold(next);
    drafts = chartDrafts.keep(id, { ...next, revision });
    if (saveState !== 'conflict') {
      saveState = 'saving';
      schedule(SAVE_DELAY);
    }
  }

  /** Changes text or plan; edits in the same `group` within a second undo as one. */
  function edit(changed: Partial<Content>, group: string | null = null) {
    const next = { ...content, ...changed };
    if (next.text === content.text && next.plan === content.plan) return;
    const now = Date.now();
    const last = past.at(-1);
    const joins = last?.burst?.group === group && now - last.burst.at < BURST;
    const burst = group === null ? null : { group, at: now };
    past = joins ? [...past.slice(0, -1), { ...last, burst }] : [...past, { ...content, burst }];
    future = [];
    change(next);
  }

  function undo() {
    const last = past.at(-1);
    if (!last) return;
    past = past.slice(0, -1);
    future = [...future, content];
    change({ text: last.text, plan: last.plan });
  }

  function redo() {
    const next = future.at(-1);
    if (!next) return;
    future = future.slice(0, -1);
    past = [...past, { ...content, burst: null }];
    change(next);
  }

  function settle(current: StoredText) {
    revision = current.revision;
    acknowledged = { text: current.text, plan: current.plan };
    theirs = null;
    saveState = 'saved';
  }

  /**
   * Takes over what another device has saved, where nothing of ours waits to be saved; ours stays one undo
   * away. What is being typed is asked about when it is saved. Answers whether it has.
   */
  async function follow(revisionThere: number | null): Promise<boolean> {
    if (dirty() || (revisionThere !== null && revisionThere <= revision)) return false;
    const current = await findChart(id);
    if (!current || dirty() || current.revision <= revision) return false;
    const changed = !same(current, content);
    if (changed) past = [...past, { ...content, burst: null }];
    future = changed ? [] : future;
    settle(current);
    hold(acknowledged);
    chartDrafts.acknowledge(id, current);
    return changed;
  }

  /** Takes up what an earlier visit could not send. */
  const resume = (): Promise<void> =>
    chartDrafts.resume(id, {
      now: () => ({ ...content, revision }),
      untouched: () => !dirty(),
      renew(newer) {
        ({ revision } = newer);
        hold({ text: newer.text, plan: newer.plan });
        acknowledged = content;
      },
      goOn(draft, theirs) {
        past = [{ ...content, burst: null }];
        hold({ text: draft.text, plan: draft.plan });
        if (theirs) meet(theirs);
        else {
          ({ revision } = draft);
          schedule(0);
        }
      },
    });

  return {
    get text() {
      return text;
    },
    get plan() {
      return plan;
    },
    get saveState() {
      return saveState;
    },
    /** Why the server refused the last save, in its words. */
    get refusal() {
      return refusal;
    },
    /** The version on the server that this one would overwrite. */
    get theirs() {
      return theirs;
    },
    get canUndo() {
      return past.length > 0;
    },
    get canRedo() {
      return future.length > 0;
    },
    edit,
    undo,
    redo,
    /** Whether this browser keeps what is not sent yet. */
    get keepsDrafts() {
      return drafts;
    },
    save,
    follow,
    /** Sends the last keystroke as the page goes, behind a save that is still under way. */
    leave() {
      clearTimeout(timer);
      if (!dirty() || theirs !== null) return;
      unanswered = content;
      void saveChart(id, { ...content, revision: inFlight ? revision + 1 : revision });
    },
    resume,
    /** Keeps this version: it is saved over the other, which stays one undo away. */
    keepMine() {
      if (theirs === null) return;
      const mine = content;
      past = [...past, { text: theirs.text, plan: theirs.plan, burst: null }];
      settle(theirs);
      change(mine);
    },
    /** Takes the other version; this one stays one undo away. */
    takeTheirs() {
      if (theirs === null) return;
      past = [...past, { ...content, burst: null }];
      const taken = theirs;
      settle(taken);
      hold(acknowledged);
      chartDrafts.drop(id);
    },
    /** Saves this version as a chart of its own and takes the other; its id, or null if away. */
    async keepBoth(): Promise<string | null> {
      if (theirs === null) return null;
      const made = await createChart(content.text, content.plan);
      if (made !== null) this.takeTheirs();
      return made;
    },
  };
}

export type ChartEditing = ReturnType<typeof createDocument>;

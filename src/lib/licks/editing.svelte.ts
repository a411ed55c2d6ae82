/** A lick being written: every change kept within a second, undone and done again. */
import { untrack } from 'svelte';
import { dequal } from 'dequal/lite';
import type { Neck } from 'corvel-core';
import { chartBeats, readChart } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import { type Lick, lickPassage } from '$core/licks/lick';
import { readLick } from '$core/licks/reading';
import type { LickNote } from '$core/licks/sounding';
import { message, warn } from '$lib/ui/messages.svelte';
import { draftsOf, type Revised } from '$lib/kept/drafts';
import { saveLick } from './api';
import { emptyGrid, type Grid, type GridFrame, typed } from './grid';
import { contentOf, lickRequest, type LickTitle, type StoredLick } from './messages';
import { notesFrom, notesToKeep } from '$core/licks/kept';
import { barOf, DEFAULT_TIME } from '$core/time/metre';
import type { Beats } from '$core/time/units';

/** How long changes are gathered before they are sent, in milliseconds, and how soon again. */
const DELAY = 600;
const AGAIN = 3_000;
const DEPTH = 200;

const lickDrafts = draftsOf<Lick>('lick', lickRequest);

type LickState = 'saved' | 'saving' | 'away' | 'conflict';

export function createLickEditing(stored: StoredLick, neck: () => Neck) {
  const { id } = stored;
  let revision = stored.revision;
  let lick = $state.raw<Lick>(contentOf(stored));
  let acknowledged = untrack(() => lick);
  let drafts = $state(true);
  let grid = $state.raw<Grid>(emptyGrid(notesFrom(stored.notes)));
  let state = $state<LickState>('saved');
  let past = $state.raw<readonly Lick[]>([]);
  let future = $state.raw<readonly Lick[]>([]);
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** What is on its way to the server. */
  let sending: Lick | null = null;
  /** Sent, and perhaps kept, though no answer came. */
  let unanswered: Lick | null = null;

  let listed: LickTitle | null = null;
  /** What the list shows of it: the same while notes alone are written. */
  const inList = $derived.by(() => {
    const { title, tags, source, chart: text } = lick;
    const now: LickTitle = { id, title, tags: [...tags], source, chart: text };
    if (!dequal(listed, now)) listed = now;
    return listed ?? now;
  });
  const result = $derived(readChart(lick.chart));
  /** The chords as last they could be read. */
  let lastGood: ReturnType<typeof readChart> | null = null;
  const chart = $derived.by(() => {
    if (result.ok) lastGood = result;
    const good = lastGood?.ok ? lastGood.chart : null;
    return result.ok ? result.chart : (good ?? result.readable);
  });
  const key = $derived(chart ? readHarmony(chart).key.key : null);
  /** What is written, in time. */
  const notes = $derived(notesFrom(lick.notes));
  const bar = $derived(barOf(chart?.source.time ?? DEFAULT_TIME));
  const frame = $derived<GridFrame>({
    neck: neck(),
    bar,
    end: Math.max(chart ? chartBeats(chart) : bar, ...notes.map(({ beat, beats }) => beat + beats)),
  });
  const reading = $derived(chart ? readLick(chart, key, neck(), notes) : null);
  const passage = $derived(
    chart ? lickPassage({ title: lick.title, notes }, chart, key, neck()) : null,
  );

  async function save(): Promise<void> {
    if (sending) return;
    sending = lick;
    const sent = lick;
    const outcome = await saveLick(id, revision, sent);
    sending = null;
    switch (outcome.kind) {
      case 'saved':
        acknowledge(sent, outcome.revision);
        return;
      case 'conflict': {
        // One's own, of which the answer never came, needs no question.
        const there = contentOf(outcome.current);
        if (unanswered && dequal(contentOf(unanswered), there))
          acknowledge(unanswered, outcome.current.revision);
        else meet(outcome.current);
        return;
      }
      case 'away':
        unanswered = sent;
        state = 'away';
        later(AGAIN);
        return;
      case 'refused':
        state = 'away';
        warn(outcome.message);
    }
  }

  function acknowledge(kept: Lick, at: number) {
    revision = at;
    state = 'saved';
    acknowledged = kept;
    unanswered = null;
    lickDrafts.acknowledge(id, { ...contentOf(kept), revision });
    if (lick === kept) lickDrafts.drop(id);
    else {
      lickDrafts.keep(id, { ...contentOf(lick), revision });
      later(DELAY);
    }
  }

  function later(delay: number) {
    state = state === 'away' ? 'away' : 'saving';
    clearTimeout(timer);
    timer = setTimeout(() => void save(), delay);
  }

  /** Another version stands on the server: the player chooses, and what is not chosen is one undo away. */
  function meet(current: Revised<Lick>) {
    state = 'conflict';
    message('This lick was changed elsewhere since it was opened here.', {
      duration: Infinity,
      action: { label: 'Take theirs', onClick: () => take(current) },
      cancel: { label: 'Keep mine', onClick: () => keep(current) },
    });
  }

  function take(current: Revised<Lick>) {
    past = [...past.slice(-DEPTH), lick];
    ({ revision } = current);
    put(current);
    acknowledged = lick;
    state = 'saved';
    lickDrafts.drop(id);
  }

  function keep(theirs: Revised<Lick>) {
    past = [...past.slice(-DEPTH), contentOf(theirs)];
    ({ revision } = theirs);
    state = 'saving';
    later(0);
  }

  function put(next: Lick) {
    lick = contentOf(next);
    grid = { ...grid, notes: notesFrom(next.notes), pending: null };
  }

  function send() {
    drafts = lickDrafts.keep(id, { ...contentOf(lick), revision });
    if (state !== 'conflict') later(DELAY);
  }

  function show(next: Lick) {
    put(next);
    send();
  }

  /** Takes up what an earlier visit could not send. */
  const resume = (): Promise<void> =>
    lickDrafts.resume(id, {
      now: () => ({ ...lick, revision }),
      untouched: () => lick === acknowledged,
      renew(newer) {
        ({ revision } = newer);
        put(newer);
        acknowledged = lick;
      },
      goOn(draft, theirs) {
        past = [lick];
        put(draft);
        if (theirs) meet(theirs);
        else {
          ({ revision } = draft);
          later(0);
        }
      },
    });

  /** The field that is being typed into: letter after letter is one change to undo. */
  let typing: keyof Lick | null = null;

  function write<K extends keyof Lick>(field: K, value: Lick[K]) {
    if (lick[field] === value) return;
    const goesOn = typing === field;
    if (goesOn) show({ ...lick, [field]: value });
    else change({ [field]: value } as Partial<Lick>);
    typing = field;
  }

  function change(changed: Partial<Lick>) {
    typing = null;
    past = [...past.slice(-DEPTH), lick];
    future = [];
    show({ ...lick, ...changed });
  }

  return {
    id,
    get lick() {
      return lick;
    },
    get inList() {
      return inList;
    },
    get notes() {
      return notes;
    },
    get grid() {
      return grid;
    },
    get frame() {
      return frame;
    },
    get chart() {
      return chart;
    },
    /** What cannot be read of the chords; null where all can. */
    get problem() {
      return result.ok ? null : (result.problems[0]?.message ?? null);
    },
    get key() {
      return key;
    },
    get reading() {
      return reading;
    },
    get passage() {
      return passage;
    },
    get state() {
      return state;
    },
    /** Whether this browser keeps what is not sent yet. */
    get keepsDrafts() {
      return drafts;
    },
    get canUndo() {
      return past.length > 0;
    },
    get canRedo() {
      return future.length > 0;
    },
    change,
    /** Takes up what is typed into a field, letter by letter. */
    write,
    setNotes: (played: readonly LickNote[]) => change({ notes: notesToKeep(played) }),
    /** Puts the cursor somewhere. */
    point(beat: Beats, string: number) {
      grid = { ...grid, beat, string, pending: null };
    },
    /** Whether a key was one of the grid's. */
    type(pressed: string): boolean {
      const next = typed(grid, pressed, frame);
      if (!next) return false;
      const before = grid.notes;
      grid = next;
      const written = next.notes === before ? lick.notes : notesToKeep(next.notes);
      if (JSON.stringify(written) !== JSON.stringify(lick.notes)) {
        typing = null;
        past = [...past.slice(-DEPTH), lick];
        future = [];
        lick = { ...lick, notes: written };
        send();
      }
      return true;
    },
    resume,
    /** Sends what is not kept yet, as the page goes, behind a save that is still under way. */
    leave() {
      clearTimeout(timer);
      if (state !== 'saving' && state !== 'away') return;
      if (!sending) void save();
      else if (sending !== lick) void saveLick(id, revision + 1, lick);
    },
    undo() {
      const last = past.at(-1);
      if (!last) return;
      typing = null;
      past = past.slice(0, -1);
      future = [...future, lick];
      show(last);
    },
    redo() {
      const next = future.at(-1);
      if (!next) return;
      typing = null;
      future = future.slice(0, -1);
      past = [...past, lick];
      show(next);
    },
  };
}

export type LickEditing = ReturnType<typeof createLickEditing>;

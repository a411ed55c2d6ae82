/**
 * Writing tablature with keys: a cursor on a string and a beat, digits for frets, letters for
 * techniques. Each key makes a new value of the old, so that it can be tested and undone.
 */
import { at, range } from '$core/lists';
import type { LickNote } from '$core/licks/sounding';
import { BEAT, type Neck } from 'corvel-core';
import { stringCount } from '$core/neck/neck';
import { inOrder, type Technique, techniqueOf } from '$core/phrases/techniques';
import type { Beats } from '$core/time/units';

/** Note values, the longest first, where a quarter note is a beat. */
export const LENGTHS: readonly Beats[] = [4 * BEAT, 2 * BEAT, BEAT, BEAT / 2, BEAT / 4];

export interface GridFrame {
  readonly neck: Neck;
  /** Where the chords end. */
  readonly end: Beats;
  /** How long a bar is. */
  readonly bar: Beats;
}

export interface Grid {
  /** In order of time. */
  readonly notes: readonly LickNote[];
  readonly beat: Beats;
  readonly string: number;
  /** Which of {@link LENGTHS} is written. */
  readonly length: number;
  readonly dotted: boolean;
  readonly triplet: boolean;
  /** A first digit that may become a fret of two. */
  readonly pending: number | null;
  /** The place just written, which letters speak of until the cursor moves; null after that. */
  readonly wrote: { readonly beat: Beats; readonly string: number } | null;
}

const EIGHTHS = 3;

export const emptyGrid = (notes: readonly LickNote[]): Grid => ({
  notes: inTime(notes),
  beat: 0,
  string: 3,
  length: EIGHTHS,
  dotted: false,
  triplet: false,
  pending: null,
  wrote: null,
});

const inTime = (notes: readonly LickNote[]): readonly LickNote[] =>
  notes.toSorted((a, b) => a.beat - b.beat || b.string - a.string);

/** How long the next note is. */
export function lengthOf({ length, dotted, triplet }: Grid): Beats {
  const plain = at(LENGTHS, length);
  return dotted ? (plain * 3) / 2 : triplet ? (plain * 2) / 3 : plain;
}

/** The note under the cursor: on its string, else any at its beat. */
const noteAt = ({ notes, beat, string }: Grid): LickNote | undefined =>
  notes.find((note) => note.beat === beat && note.string === string) ??
  notes.find((note) => note.beat === beat);

/** The note that letters speak of: just written, under the cursor, else the last before it. */
function spokenOf(grid: Grid): LickNote | undefined {
  const { notes, beat, wrote } = grid;
  const fresh = notes.find(
    (note) => wrote !== null && note.beat === wrote.beat && note.string === wrote.string,
  );
  return fresh ?? noteAt(grid) ?? notes.findLast((note) => note.beat < beat);
}

/** A moment at which the next note still begins before the end. */
const inside = (grid: Grid, beat: Beats, { end }: GridFrame): Beats =>
  Math.max(0, beat < end ? beat : end - lengthOf(grid));

function moved(grid: Grid, by: 1 | -1, frame: GridFrame): Grid {
  const { notes, beat } = grid;
  const step = lengthOf(grid);
  const others = notes.map((note) => note.beat);
  if (by > 0) {
    const next = Math.min(...others.filter((one) => one > beat), beat + step);
    return next >= frame.end ? grid : { ...grid, beat: next };
  }
  const before = Math.max(...others.filter((one) => one < beat), beat - step);
  return { ...grid, beat: Math.max(0, before) };
}

/** A first digit left alone is a fret of its own: the cursor goes on. */
const settled = (grid: Grid, frame: GridFrame): Grid =>
  grid.pending === null ? grid : moved({ ...grid, pending: null }, 1, frame);

/** A note written over whatever is there; what it reaches into begins after it. */
function written(grid: Grid, fret: number): Grid {
  const { notes, beat, string } = grid;
  const beats = lengthOf(grid);
  const together = notes.filter((note) => note.beat === beat && note.string !== string);
  const later = notes.filter((note) => note.beat > beat);
  const next = Math.min(Infinity, ...later.map((note) => note.beat));
  const length = Math.min(beats, next - beat);
  const earlier = notes
    .filter((note) => note.beat < beat)
    .map((note) => ({ ...note, beats: Math.min(note.beats, beat - note.beat) }));
  const own: LickNote = { beat, beats: length, string, fret, techniques: [] };
  const chord = together.map((note) => ({ ...note, beats: length }));
  return { ...grid, notes: inTime([...earlier, ...chord, own, ...later]), wrote: { beat, string } };
}

function digit(grid: Grid, value: number, frame: GridFrame): Grid {
  const { frets, capo } = frame.neck;
  if (grid.pending !== null) {
    const fret = 10 * grid.pending + value;
    if (fret <= frets) return moved({ ...written(grid, fret), pending: null }, 1, frame);
    return digit(settled(grid, frame), value, frame);
  }
  if (value < capo) return grid;
  const placed = written(grid, value);
  const mayGrow = value > 0 && 10 * value <= frets;
  return mayGrow ? { ...placed, pending: value } : moved(placed, 1, frame);
}

const replaced = (grid: Grid, old: LickNote, note: LickNote): Grid => ({
  ...grid,
  notes: grid.notes.map((one) => (one === old ? note : one)),
});

/** Bends in the order in which the key goes through them. */
const BENDS: readonly (Technique | null)[] = [
  { kind: 'bend', by: 2 },
  { kind: 'bend', by: 1 },
  { kind: 'bend', by: 3 },
  { kind: 'bend', by: 2, release: true },
  null,
];

function bent(note: LickNote): LickNote {
  const now = techniqueOf(note.techniques, 'bend');
  const place = BENDS.findIndex(
    (one) =>
      one?.kind === 'bend' &&
      now &&
      one.by === now.by &&
      (one.release ?? false) === (now.release ?? false),
  );
  const next = at(BENDS, (place + 1) % BENDS.length);
  const rest = note.techniques.filter(({ kind }) => kind !== 'bend');
  return { ...note, techniques: inOrder(next ? [...rest, next] : rest) };
}

const TOGGLED = {
  h: 'hammer-on',
  p: 'pull-off',
  v: 'vibrato',
  m: 'mute',
  g: 'grace',
  l: 'let-ring',
} as const;

function toggled(note: LickNote, kind: (typeof TOGGLED)[keyof typeof TOGGLED]): LickNote {
  const has = note.techniques.some((one) => one.kind === kind);
  const exclusive = ['hammer-on', 'pull-off'];
  const rest = note.techniques.filter(
    (one) => one.kind !== kind && !(exclusive.includes(kind) && exclusive.includes(one.kind)),
  );
  return { ...note, techniques: has ? rest : inOrder([...rest, { kind }]) };
}

/** A slide into the note: from the one before on its string, else from two frets below. */
function slid(grid: Grid, note: LickNote): LickNote {
  const has = note.techniques.some(({ kind }) => kind === 'slide');
  const rest = note.techniques.filter(({ kind }) => kind !== 'slide');
  if (has) return { ...note, techniques: rest };
  const before = grid.notes.findLast((one) => one.beat < note.beat);
  const own = before?.string === note.string && before.fret !== note.fret;
  const from = Math.max(0, note.fret - 2);
  if (!own && from === note.fret) return note;
  const slide: Technique = own ? { kind: 'slide' } : { kind: 'slide', from };
  return { ...note, techniques: inOrder([...rest, slide]) };
}

function withLength(grid: Grid): Grid {
  const note = grid.notes.find((one) => one.beat === grid.beat);
  if (!note) return grid;
  const next = Math.min(
    Infinity,
    ...grid.notes.map(({ beat }) => beat).filter((beat) => beat > grid.beat),
  );
  const beats = Math.min(lengthOf(grid), next - grid.beat);
  return {
    ...grid,
    notes: grid.notes.map((one) => (one.beat === grid.beat ? { ...one, beats } : one)),
  };
}

/** The note before the cursor made longer by what is written now: a tie. */
function tied(grid: Grid, frame: GridFrame): Grid {
  const last = grid.notes.findLast(({ beat }) => beat <= grid.beat);
  if (!last) return grid;
  const next = Math.min(
    frame.end,
    ...grid.notes.map(({ beat }) => beat).filter((beat) => beat > last.beat),
  );
  const beats = Math.min(last.beats + lengthOf(grid), next - last.beat);
  const notes = grid.notes.map((one) => (one.beat === last.beat ? { ...one, beats } : one));
  return { ...grid, notes, beat: inside(grid, last.beat + beats, frame) };
}

function removed(grid: Grid, back: boolean): Grid {
  const here = grid.notes.find((note) => note.beat === grid.beat && note.string === grid.string);
  const gone = here ?? (back ? grid.notes.findLast(({ beat }) => beat < grid.beat) : undefined);
  if (!gone) return grid;
  return {
    ...grid,
    notes: grid.notes.filter((note) => note !== gone),
    beat: gone.beat,
    string: gone.string,
  };
}

/** What a key makes of the grid; null where it is none of its keys. */
export function typed(given: Grid, key: string, frame: GridFrame): Grid | null {
  if (/^\d$/u.test(key)) return digit(given, Number(key), frame);
  const walks = /^(?:Arrow|Home|End|Page)/u.test(key) || key === 'r';
  const kept = settled(given, frame);
  const grid = walks ? { ...kept, wrote: null } : kept;
  const about = spokenOf(grid);
  const change = (make: (note: LickNote) => LickNote): Grid =>
    about ? replaced(grid, about, make(about)) : grid;
  const strings = stringCount(frame.neck);
  switch (key) {
    case 'ArrowRight':
      return given.pending === null ? moved(grid, 1, frame) : grid;
    case 'ArrowLeft':
      return given.pending === null ? moved(grid, -1, frame) : { ...given, pending: null };
    case 'ArrowUp':
      return { ...grid, string: Math.max(1, grid.string - 1) };
    case 'ArrowDown':
      return { ...grid, string: Math.min(strings, grid.string + 1) };
    case 'Home':
      return { ...grid, beat: 0 };
    case 'End': {
      const last = grid.notes.at(-1);
      return { ...grid, beat: inside(grid, last ? last.beat + last.beats : 0, frame) };
    }
    case 'PageDown':
      return {
        ...grid,
        beat: inside(grid, (Math.floor(grid.beat / frame.bar) + 1) * frame.bar, frame),
      };
    case 'PageUp':
      return {
        ...grid,
        beat: Math.max(0, (Math.ceil(grid.beat / frame.bar) - 1) * frame.bar),
      };
    case '+':
      return withLength({ ...grid, length: Math.max(0, grid.length - 1) });
    case '-':
      return withLength({ ...grid, length: Math.min(LENGTHS.length - 1, grid.length + 1) });
    case '.':
      return withLength({ ...grid, dotted: !grid.dotted, triplet: false });
    case 't':
      return withLength({ ...grid, triplet: !grid.triplet, dotted: false });
    case '=':
      return tied(grid, frame);
    case 'r':
      return moved(grid, 1, frame);
    case 'b':
      return change(bent);
    case 's':
      return change((note) => slid(grid, note));
    case 'Backspace':
      return removed(given.pending === null ? grid : { ...given, pending: null }, true);
    case 'Delete':
      return removed(given.pending === null ? grid : { ...given, pending: null }, false);
    default: {
      const kind = TOGGLED[key as keyof typeof TOGGLED] as (typeof TOGGLED)['h'] | undefined;
      return kind === undefined ? null : change((note) => toggled(note, kind));
    }
  }
}

/** The keys of the grid with what they do, for the help beside it. */
export const GRID_KEYS: readonly (readonly [keys: string, does: string])[] = [
  ['0–9', 'fret; type 1 2 for fret 12'],
  ['← → ↑ ↓', 'walk'],
  ['+ −', 'longer, shorter'],
  ['. T =', 'dot, triplet, tie'],
  ['B S H P', 'bend, slide, hammer-on, pull-off'],
  ['V M G L', 'vibrato, mute, grace, let ring'],
  ['R', 'rest'],
  ['⌫', 'delete'],
];

/** Where the bars of a grid begin. */
export const barsIn = ({ end, bar }: GridFrame): readonly Beats[] =>
  range(0, Math.max(1, Math.ceil(end / bar))).map((index) => index * bar);

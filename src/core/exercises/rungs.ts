/** The notes an exercise may play over one chord, as rungs from low to high, and ways along them. */
import { chordNotes } from '../chords/chords';
import { at, range } from '../lists';
import type { Placed } from '../neck/fingering';
import { underHand } from '../neck/hand';
import { type Neck, pitchAt, type Place, type Zone, wholeNeck } from '../neck/neck';
import { type Note, pitchClass, step, transpose } from '../notes/notes';
import type { Beginning } from './kinds';
import type { Midi } from '../notes/pitch';
import type { ChordSpan } from '../lines/spans';
import type { RouteStop } from '../targets/route';

/** What an exercise sees of one chord. */
export interface Moment {
  readonly neck: Neck;
  readonly span: ChordSpan;
  /** How many chords have gone before. */
  readonly turn: number;
  /** Notes there is time for. */
  readonly count: number;
  readonly zone: Zone;
  /** The zones an exercise may move through, lowest first. */
  readonly zones: readonly Zone[];
  readonly strings: readonly number[];
  /** Notes to a group, in groups. */
  readonly group: number;
  /** The tone of the chord to begin on; null for the root of what is played. */
  readonly begin: Beginning | null;
  /** The scale of the key; empty where no single one holds. */
  readonly home: readonly Note[];
  /** The shape that is shifted here; empty for other exercises. */
  readonly shape: readonly Placed[];
  /** The last note played, and whether the line was rising. */
  readonly last: { readonly midi: Midi; readonly rising: boolean } | null;
  readonly target: RouteStop;
  readonly nextTarget: RouteStop;
  readonly nextSpan: ChordSpan;
}

/** What is played over one chord, note by note. */
export type Pattern = (moment: Moment) => readonly Placed[];

/** Notes from low to high, each pitch once; on the whole neck where the zone holds none. */
export function ladder(
  { neck, zone }: Moment,
  notes: readonly Note[],
  strings: readonly number[] | null = null,
): readonly Placed[] {
  const inside = underHand(neck, notes, zone, { strings });
  return inside.length > 0 ? inside : underHand(neck, notes, wholeNeck(neck), { strings });
}

/** The notes of the material over a chord. */
export const scaleOf = ({ span }: Moment): readonly Note[] => span.material.notes;

/** The notes of a chord, without a bass that is none of them. */
export const tonesOf = ({ span }: Moment): readonly Note[] =>
  chordNotes({ ...span.chord, bass: null });

/** Steps of the scale at which a chord has a tone that is asked for, the likeliest first. */
const TONE_STEPS: Readonly<Record<Beginning, readonly number[]>> = {
  '1': [0],
  '3': [2, 3, 1],
  '5': [4],
  '7': [6, 5],
};

/** The tone of the chord that is asked for; none where nothing is asked, or the chord has none such. */
const askedTones = ({ span: { chord }, begin }: Moment): readonly Note[] =>
  (begin === null ? [] : TONE_STEPS[begin])
    .flatMap((wanted) => chord.quality.degrees.filter((one) => step(one) === wanted))
    .map((one) => transpose(chord.root, one));

/** Notes from which on a collection is a scale, with a mode on each. */
const SCALE = 7;

/**
 * What a scale or an arpeggio may begin on, the likeliest first: the tone asked for, else its own root. A
 * scale of seven notes that holds the chord's root is heard from there; an arpeggio, a pentatonic and a
 * blues scale from the root they are called by.
 */
export function rootsOf(moment: Moment): readonly Note[] {
  const { chord, material } = moment.span;
  const heard = (material.collection?.kind.degrees.length ?? 0) >= SCALE;
  const own = heard ? [chord.root, material.root] : [material.root, chord.root];
  return [...askedTones(moment), ...own];
}

/** What the chord's own arpeggio may begin on. */
export const chordRootsOf = (moment: Moment): readonly Note[] => [
  ...askedTones(moment),
  moment.span.chord.root,
];

const sameAs =
  (wanted: Note) =>
  ({ note }: Placed): boolean =>
    pitchClass(note) === pitchClass(wanted);

/** The lowest rung with the first of some notes that any rung has. */
export function lowest(rungs: readonly Placed[], notes: readonly Note[]): number {
  const found = notes.map((wanted) => rungs.findIndex(sameAs(wanted)));
  return found.find((rung) => rung >= 0) ?? 0;
}

/** Index of the highest rung with the first of these notes that any rung has; of the last rung where none has. */
export function highest(rungs: readonly Placed[], notes: readonly Note[]): number {
  const found = notes.map((wanted) => rungs.findLastIndex(sameAs(wanted)));
  return found.find((rung) => rung >= 0) ?? rungs.length - 1;
}

/** Along a row, turning round at either end. */
export function bouncing<T>(rungs: readonly T[], from: number, count: number, rising: boolean) {
  let by = rising ? 1 : -1;
  let here = from;
  return range(0, count).map((step) => {
    if (step > 0 && rungs.length > 1) {
      if (here + by < 0 || here + by >= rungs.length) by = -by;
      here += by;
    }
    return at(rungs, here);
  });
}

/** What the same note again, and a step back, weigh against going on, in half steps. */
const AGAIN = 6;
const BACK = 3;

/** The rung nearest to where the line stands, going on in a direction where it can. */
export function goingOn({ neck, last }: Moment, rungs: readonly Placed[], rising: boolean): number {
  if (!last) return 0;
  const distance = (rung: Placed) => {
    const gap = pitchAt(neck, rung) - last.midi;
    const ahead = rising ? gap > 0 : gap < 0;
    return Math.abs(gap) + (gap === 0 ? AGAIN : ahead ? 0 : BACK);
  };
  return rungs.reduce(
    (best, rung, index) => (distance(rung) < distance(at(rungs, best)) ? index : best),
    0,
  );
}

/** The rungs without a note that has just sounded, where there are others. */
export function besides(neck: Neck, rungs: readonly Placed[], sounded: Place): readonly Placed[] {
  const others = rungs.filter((rung) => pitchAt(neck, rung) !== pitchAt(neck, sounded));
  return others.length > 0 ? others : rungs;
}

/** The rungs from the lowest root up to the next. */
export const withinOctave = (moment: Moment, rungs: readonly Placed[]): readonly Placed[] => {
  const root = at(rungs, lowest(rungs, rootsOf(moment)));
  const low = pitchAt(moment.neck, root);
  return rungs.filter((rung) => {
    const midi = pitchAt(moment.neck, rung);
    return midi >= low && midi <= low + 12;
  });
};

/**
 * Small cells along the rungs, each begun one rung further on: their rungs are counted from where
 * the cell begins. Where a cell would leave the rungs the way turns round.
 */
export function cells(
  rungs: readonly Placed[],
  from: number,
  count: number,
  rising: boolean,
  cell: readonly number[],
): readonly Placed[] {
  const width = Math.max(...cell);
  if (rungs.length <= width) return bouncing(rungs, from, count, rising);
  const played: number[] = [];
  let by = rising ? 1 : -1;
  const fits = (start: number) => start + by * width >= 0 && start + by * width < rungs.length;
  let start = from;
  if (!fits(start)) start = by > 0 ? rungs.length - 1 - width : width;
  while (played.length < count) {
    if (!fits(start)) {
      by = -by;
      // Turning, the cell begins beside the note just left rather than on it again.
      start = at(played, played.length - 1) + by;
    }
    for (const up of cell) played.push(start + by * up);
    start += by;
  }
  return played.slice(0, count).map((rung) => at(rungs, rung));
}

/** How good a line is, in named parts from 0 to 1, so that the best of several is offered first. */
import { degreeOver, weightOver } from '../chords/over';
import { at, range } from '../lists';
import { type Neck, pitchAt } from '../neck/neck';
import { landingOn, ON_TIME } from '../phrases/landing';
import type { PlayedNote } from '../phrases/passage';
import type { Beats } from '../time/units';
import { type Onset, stretchesOf } from './onsets';
import { restShare } from './rests';
import type { LineMetre } from './rhythm';
import type { ChordSpan } from './spans';

/** The parts of a score, each with what it asks and what it weighs. */
export const SCORE_PARTS = {
  landings: { words: 'it lands on the changes', weight: 5 },
  turns: { words: 'bars turn several times or not at all', weight: 4 },
  rests: { words: 'it breathes', weight: 2 },
  starts: { words: 'bars begin off their first beat too', weight: 3 },
  leaps: { words: 'it leaps now and then', weight: 3 },
  sway: { words: 'it does not go to and fro between two notes', weight: 3 },
  motif: { words: 'its idea comes back', weight: 2 },
  range: { words: 'it uses an octave and more', weight: 3 },
  ending: { words: 'it ends on a chord tone that rings', weight: 3 },
} as const;
export type ScorePart = keyof typeof SCORE_PARTS;

export interface LineScore {
  readonly parts: Readonly<Record<ScorePart, number>>;
  /** The mean of its parts by their weights, 0 to 1. */
  readonly total: number;
}

export interface Scored {
  readonly neck: Neck;
  readonly spans: readonly ChordSpan[];
  readonly notes: readonly PlayedNote[];
  readonly onsets: readonly Onset[];
  readonly metre: LineMetre;
  readonly end: Beats;
}

const CLOSE = 1e-6;
/** A fourth: from here on a move is a leap, in half steps. */
export const LEAP = 5;

/** Full where a value lies within bounds, less the further it lies outside. */
const within = (value: number, least: number, most: number, slack: number): number =>
  Math.max(0, 1 - Math.max(0, least - value, value - most) / slack);

const ratio = (count: number, of: number): number => (of === 0 ? 1 : count / of);

/** Changes of direction in a run of pitches; the same note twice is none. */
export function turnsIn(pitches: readonly number[]): number {
  let way = 0;
  let turns = 0;
  for (let index = 1; index < pitches.length; index++) {
    const next = Math.sign(at(pitches, index) - at(pitches, index - 1));
    if (next !== 0 && way !== 0 && next !== way) turns += 1;
    if (next !== 0) way = next;
  }
  return turns;
}

/** How often four notes in a row go to and fro between two pitches. */
export const swaysIn = (pitches: readonly number[]): number =>
  range(3, pitches.length).filter((index) => {
    const [a, b, c, d] = pitches.slice(index - 3, index + 1);
    return a === c && b === d && a !== b;
  }).length;

function landingsOf({ spans, notes, neck }: Scored): number {
  const stretches = stretchesOf(spans);
  const sounding = notes.map((note) => ({ ...note, midi: pitchAt(neck, note) }));
  const landed = stretches.filter(({ first }) => {
    const span = at(spans, first);
    const aimed = sounding.find(
      (note) =>
        note.part === 'target' && note.chord === span.index && Math.abs(note.beat - span.beat) <= 1,
    );
    return aimed && landingOn(sounding, span, aimed.midi, ON_TIME);
  });
  return ratio(landed.length, stretches.length);
}

/** The largest share of a line's phrases, after the first, whose notes keep to the motif. */
function motifIn({ onsets, notes, neck }: Scored): number {
  const stated = onsets.flatMap((onset, index) => (onset.step === null ? [] : [index]));
  const kept = stated.filter((index) => {
    const size = pitchAt(neck, at(notes, index)) - pitchAt(neck, at(notes, index - 1));
    return Math.sign(size) === Math.sign(at(onsets, index).step ?? 0);
  });
  return ratio(kept.length, stated.length);
}

/** The score of a line. */
export function scoreLine(scored: Scored): LineScore {
  const { notes, neck, metre, end, spans } = scored;
  const pitches = notes.map((note) => pitchAt(neck, note));
  const bars = range(0, Math.max(1, Math.ceil(end / metre.bar - CLOSE))).map((number) =>
    notes.flatMap(({ beat }, index) =>
      Math.floor(beat / metre.bar + CLOSE) === number ? [index] : [],
    ),
  );
  const full = bars.filter((bar) => bar.length >= Math.max(4, metre.bar * metre.per * 0.7));
  const once = full.filter((bar) => turnsIn(bar.map((index) => at(pitches, index))) === 1);
  const off = bars.filter((bar, number) => {
    const [first] = bar;
    return first === undefined || at(notes, first).beat > number * metre.bar + CLOSE;
  });
  const eights = bars.length / 8;
  const leaps = pitches.filter(
    (pitch, index) => index > 0 && Math.abs(pitch - at(pitches, index - 1)) >= LEAP,
  ).length;
  const last = notes.at(-1);
  const sounding = last && spans.findLast(({ index }) => index === last.chord);
  const closes =
    last && sounding
      ? weightOver(sounding.chord, degreeOver(sounding.chord, last.note)) !== 'colour'
      : false;
  const reach = pitches.length === 0 ? 0 : Math.max(...pitches) - Math.min(...pitches);
  const parts: Record<ScorePart, number> = {
    landings: within(landingsOf(scored), 0.85, 1, 0.4),
    turns: within(ratio(once.length, full.length), 0, 0.35, 0.4),
    rests: within(restShare(notes, end), 0.12, 0.36, 0.15),
    starts: within(ratio(off.length, bars.length), 0.3, 0.7, 0.3),
    leaps: within(leaps / Math.max(0.5, eights), 1.5, 4.5, 3),
    sway: within(swaysIn(pitches), 0, Math.floor(bars.length / 16), 2),
    motif: within(motifIn(scored), 0.85, 1, 0.5),
    range: within(reach, 14, 40, 6),
    ending: closes && last && last.beats >= 1 ? 1 : closes ? 0.5 : 0,
  };
  const names = Object.keys(SCORE_PARTS) as ScorePart[];
  const weights = names.reduce((sum, name) => sum + SCORE_PARTS[name].weight, 0);
  const sum = names.reduce((whole, name) => whole + SCORE_PARTS[name].weight * parts[name], 0);
  return { parts, total: sum / weights };
}

/** How good a line is, in named parts from 0 to 1, so that the best of several is offered first. */
import { degreeOver, weightOver } from '../chords/over';
import { at, range } from '../lists';
import { pitchAt } from '../neck/neck';
import { DEFAULT_TEMPO } from '../time/tempo';
import { BEAT, type BeatsPerMinute } from '../time/units';
import { isHurried, isOutOfReach } from './inTime';
import type { Onset } from './onsets';
import { type Bounds, FIGURES, type Portrait, portraitOf, type Portrayed } from './portrait';
import type { LineStyle } from './styles';

/** The parts of a score, each with what it asks and what it weighs. */
export const SCORE_PARTS = {
  flow: { words: 'it moves through bar lines', weight: 4 },
  phrases: { words: 'its phrases are as long as players’', weight: 4 },
  starts: { words: 'its phrases begin off beat one', weight: 2 },
  climax: { words: 'its highest note comes once, past the first third', weight: 4 },
  variety: { words: 'its moves are of all sizes', weight: 4 },
  colour: { words: 'it has chord tones and colours', weight: 3 },
  rests: { words: 'it breathes', weight: 2 },
  sway: { words: 'it does not go to and fro between two notes', weight: 3 },
  motif: { words: 'its idea comes back', weight: 2 },
  hands: { words: 'a hand plays it at the tempo', weight: 4 },
  ending: { words: 'it ends on a chord tone that rings', weight: 3 },
} as const;
export type ScorePart = keyof typeof SCORE_PARTS;

/** How good a line is, part by part. */
export interface LineScore {
  readonly parts: Readonly<Record<ScorePart, number>>;
  /** The mean of its parts by their weights, 0 to 1. */
  readonly total: number;
}

interface Scored extends Portrayed {
  readonly style: LineStyle;
  readonly onsets: readonly Onset[];
  readonly tempo?: BeatsPerMinute;
}

/** Full where a value lies within bounds, less the further it lies outside. */
const within = (value: number, [least, most]: Bounds, slack: number): number =>
  Math.max(0, 1 - Math.max(0, least - value, value - most) / slack);

const ratio = (count: number, of: number): number => (of === 0 ? 1 : count / of);

/** How often four notes in a row go to and fro between two pitches. */
const swaysIn = (pitches: readonly number[]): number =>
  range(3, pitches.length).filter((index) => {
    const [a, b, c, d] = pitches.slice(index - 3, index + 1);
    return a === c && b === d && a !== b;
  }).length;

/** The share of a line's motifs, where they come back, whose moves go the way they went. */
function motifIn({ onsets, notes, neck }: Scored): number {
  const stated = onsets.flatMap((onset, index) => (onset.step === null ? [] : [index]));
  const kept = stated.filter((index) => {
    const size = pitchAt(neck, at(notes, index)) - pitchAt(neck, at(notes, index - 1));
    return Math.sign(size) === Math.sign(at(onsets, index).step ?? 0);
  });
  return ratio(kept.length, stated.length);
}

/** The share of moves that a hand makes in time. */
function handsIn({ notes, tempo = DEFAULT_TEMPO }: Scored): number {
  const hard = notes.slice(1).filter((note, index) => {
    const before = at(notes, index);
    const apart = note.beat - before.beat;
    const skipped = Math.abs(note.string - before.string) - 1;
    return isOutOfReach(before, note, apart) || (skipped >= 2 && isHurried(apart, tempo));
  });
  return Math.max(0, 1 - hard.length / 2);
}

/** How the highest note comes: past the first third, and not again in another phrase. */
function climaxIn({ peak, range: reach }: Portrait): number {
  return (within(peak, [1 / 3, 1], 1 / 3) + within(reach, [12, 40], 6)) / 2;
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

/** The score of a line. */
export function scoreLine(scored: Scored): LineScore {
  const { notes, neck, spans, style } = scored;
  const figures = FIGURES[style];
  const portrait = portraitOf(scored);
  const pitches = notes.map((note) => pitchAt(neck, note));
  const last = notes.at(-1);
  const sounding = last && spans.findLast(({ index }) => index === last.chord);
  const closes =
    last && sounding
      ? weightOver(sounding.chord, degreeOver(sounding.chord, last.note)) !== 'colour'
      : false;
  const { sizes } = portrait;
  const parts: Record<ScorePart, number> = {
    flow: within(portrait.crossed, figures.crossed, 0.3),
    phrases:
      within(portrait.phrase, figures.phrase, 6) * within(portrait.short, figures.short, 0.4),
    starts: within(portrait.onOne, figures.onOne, 0.5),
    climax: climaxIn(portrait),
    variety: mean([
      within(sizes.again, figures.again, 0.1),
      within(sizes.half, figures.half, 0.15),
      within(sizes.whole, figures.whole, 0.2),
      within(sizes.third, figures.third, 0.15),
      within(
        sizes.fourth + sizes.wide,
        [figures.fourth[0] + figures.wide[0], figures.fourth[1] + figures.wide[1]],
        0.15,
      ),
    ]),
    colour: mean([
      within(portrait.tones, figures.tones, 0.2),
      within(portrait.strongTones, figures.strongTones, 0.3),
      portrait.heldClashes === 0 ? 1 : 0,
    ]),
    rests: within(portrait.rests, [0.1, 0.45], 0.15),
    sway: within(swaysIn(pitches), [0, Math.floor(notes.length / 60)], 2),
    motif: within(motifIn(scored), [0.8, 1], 0.5),
    hands: handsIn(scored),
    ending: closes && last && last.beats >= BEAT ? 1 : closes ? 0.5 : 0,
  };
  const names = Object.keys(SCORE_PARTS) as ScorePart[];
  const weights = names.reduce((sum, name) => sum + SCORE_PARTS[name].weight, 0);
  const sum = names.reduce((whole, name) => whole + SCORE_PARTS[name].weight * parts[name], 0);
  return { parts, total: sum / weights };
}

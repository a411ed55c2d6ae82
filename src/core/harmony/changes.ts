/** Chords as harmony hears them: immediate repetitions merged, neighbours at hand. */
import type { PlayedChord } from '../chart/form';
import { type Chord, sameChord } from '../chords/chords';
import { at } from '../lists';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween } from '../notes/notes';
import type { Beats } from '../time/units';

/** A chord for as long as it stays, however often the chart names it. */
export interface Change {
  readonly chord: Chord;
  /** Indices of its first and last entry in the chart. */
  readonly first: number;
  readonly last: number;
  readonly bar: number;
  readonly beats: Beats;
}

/**
 * The chords of a chart where they change: one that stays is one change.
 *
 * @example changesOf(read('| C | C | F |').chords).length; // 2
 */
export function changesOf(chords: readonly PlayedChord[]): readonly Change[] {
  const changes: Change[] = [];
  for (const { chord, index, beats, bar } of chords) {
    const previous = changes.at(-1);
    if (previous && sameChord(previous.chord, chord)) {
      changes[changes.length - 1] = {
        ...previous,
        last: index,
        beats: previous.beats + beats,
      };
    } else {
      changes.push({ chord, first: index, last: index, bar, beats });
    }
  }
  return changes;
}

/**
 * Half steps up from one chord's root to another's, 0–11.
 *
 * @example rootMotion(parseChord('G7'), parseChord('C')); // 5
 */
export const rootMotion = (from: Chord, to: Chord): number =>
  halfSteps(intervalBetween(from.root, to.root));

/** Up a fourth, which is down a fifth. */
export const FALLING_FIFTH = 5;

/** Half steps up to the pitch class a half step below. */
export const HALF_STEP_DOWN = 11;

const SEVENTH = degree('7');
const FLAT_SEVENTH = degree('b7');

/** A chord that can pull to a root a fifth below: a dominant, or a major triad used as one. */
export function pullsAsDominant(chord: Chord): boolean {
  if (isDominantSeventh(chord)) return true;
  const { family, name, degrees } = chord.quality;
  return (family === 'major' && degrees.length === 3) || name === 'aug';
}

/** Whether a chord is heard as a dominant: with a major third and a minor seventh, sus chords among them. */
export const isDominantSeventh = (chord: Chord): boolean =>
  chord.quality.family === 'dominant' ||
  (chord.quality.family === 'suspended' && chord.quality.degrees.includes(FLAT_SEVENTH));

/** A chord that can begin a ii–V: minor or half-diminished. */
export const isSupertonic = (chord: Chord): boolean =>
  (chord.quality.family === 'minor' && !chord.quality.degrees.includes(SEVENTH)) ||
  chord.quality.family === 'half-diminished';

/**
 * A supertonic and the dominant it prepares.
 *
 * @example isTwoFive(parseChord('Dm7'), parseChord('G7')); // true
 */
export const isTwoFive = (two: Chord, five: Chord): boolean =>
  isSupertonic(two) && isDominantSeventh(five) && rootMotion(two, five) === FALLING_FIFTH;

/** The two major chords of a form that has no others, a half step apart; the lower one first. */
export function swayOf(distinct: readonly Chord[]): readonly [Chord, Chord] | null {
  const [one, other] = distinct;
  if (!one || !other || distinct.length > 2) return null;
  const { family, name } = one.quality;
  if ((family !== 'major' && family !== 'dominant') || name !== other.quality.name) return null;
  if (rootMotion(one, other) === 1) return [one, other];
  return rootMotion(other, one) === 1 ? [other, one] : null;
}

/** A chord a phrase can rest on. */
export const canArrive = (chord: Chord): boolean =>
  chord.quality.family === 'major' ||
  chord.quality.family === 'minor' ||
  chord.quality.family === 'power' ||
  chord.quality.name === 'maj7#5' ||
  chord.quality.name === 'sus2';

/** Whether a chord is heard as minor. */
export const isMinorChord = (chord: Chord): boolean =>
  chord.quality.family === 'minor' ||
  chord.quality.family === 'half-diminished' ||
  chord.quality.family === 'diminished';

/** The change a number of places away, round the end of the form. */
export const neighbour = (
  changes: readonly Change[],
  index: number,
  offset: number,
): Change | null =>
  changes.length < 2
    ? null
    : at(changes, (((index + offset) % changes.length) + changes.length) % changes.length);

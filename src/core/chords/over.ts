/** How notes read over a chord: as players name them there, not as some other root spells them. */
import { degree, degreeName, tensionName } from '../notes/degrees';
import { halfSteps, type Interval, intervalBetween, type Note } from '../notes/notes';
import type { Chord } from './chords';

/** The degrees in use; anything else is a spelling of one of them. */
const IN_USE: ReadonlySet<Interval> = new Set(
  '1 b2 2 #2 b3 3 b4 4 #4 b5 5 #5 b6 6 b7 7'.split(' ').map(degree),
);
const BY_SIZE = '1 b2 2 b3 3 4 b5 5 b6 6 b7 7'.split(' ').map(degree);
const SHARP_NINTH = degree('#2');
const DIMINISHED_SEVENTH = degree('bb7');

const FLAT_NINTH_SIZE = 1;
const MINOR_THIRD_SIZE = 3;
const FLAT_THIRTEENTH_SIZE = 8;
const MAJOR_THIRD = degree('3');

/**
 * Over a dominant the minor third is the sharp ninth where other altered tensions stand beside it,
 * in the chord or among the notes; alone it is the blue third.
 */
function readsSharpNinth({ root, quality }: Chord, notes: readonly Note[]): boolean {
  if (quality.family !== 'dominant' || !quality.degrees.includes(MAJOR_THIRD)) return false;
  const altered = (size: number) => size === FLAT_NINTH_SIZE || size === FLAT_THIRTEENTH_SIZE;
  return (
    quality.name === '7alt' ||
    quality.degrees.some((tone) => altered(halfSteps(tone))) ||
    notes.some((note) => altered(halfSteps(intervalBetween(root, note))))
  );
}

/**
 * The degree of each note over a chord. A chord tone reads as the chord's own, so that the flat
 * fourth of the altered scale is the third of its dominant; the rest as spelled.
 */
export function degreesOver(chord: Chord, notes: readonly Note[]): readonly Interval[] {
  const { root, quality } = chord;
  const sharpNinth = readsSharpNinth(chord, notes);
  return notes.map((note) => {
    const interval = intervalBetween(root, note);
    const size = halfSteps(interval);
    const tone = quality.degrees.find((own) => halfSteps(own) === size);
    if (tone !== undefined) return tone;
    if (size === MINOR_THIRD_SIZE && sharpNinth) return SHARP_NINTH;
    if (interval === DIMINISHED_SEVENTH && quality.family === 'diminished') return interval;
    return IN_USE.has(interval) ? interval : (BY_SIZE[size] ?? interval);
  });
}

const TENSIONS: ReadonlySet<Interval> = new Set('b2 2 #2 4 #4 b6 6'.split(' ').map(degree));

/** A degree as a tension where it is one: `b9`, `11`, `13`; what the chord is built of stays simple. */
export const tensionOver = ({ quality }: Chord, interval: Interval): string =>
  TENSIONS.has(interval) && !quality.core.includes(interval)
    ? tensionName(interval)
    : degreeName(interval);

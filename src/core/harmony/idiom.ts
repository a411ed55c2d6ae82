/**
 * The idiom of a chart: whether its triads and dominants are played as jazz, as blues or as rock. In blues
 * and rock the tonic's minor pentatonic and blues stand before the chords' own scales.
 */
import type { Chart } from '../chart/form';
import { type Idiom } from '../chart/syntax';
import type { Key } from '../keys/keys';
import { degree } from '../notes/degrees';
import { halfSteps, intervalBetween } from '../notes/notes';
import { type Change, isTwoFive } from './changes';

/** The idiom a chart is read in. */
export interface IdiomReading {
  readonly name: Idiom;
  /** Whether the chart states it. */
  readonly given: boolean;
}

const WORDS: readonly (readonly [RegExp, Idiom])[] = [
  [/\b(?:rock|metal|punk|grunge)\b/iu, 'rock'],
  [/\b(?:blues|shuffle|boogie)\b/iu, 'blues'],
  [/\b(?:swing|jazz|bop|bebop|bossa|samba|latin|waltz|modal)\b/iu, 'jazz'],
];

/** Flat third, flat sixth and flat seventh: the roots a rock song borrows. */
const BORROWED = [3, 8, 10];
const SEVENTHS = [degree('7'), degree('b7')];

/** Plain chords: no seventh but a dominant's. */
const isPlain = ({ chord: { quality } }: Change): boolean =>
  quality.family === 'dominant' || !SEVENTHS.some((seventh) => quality.degrees.includes(seventh));

/** Power chords, or major triads on the flat degrees of a major key: harmony of riffs. */
function isRiff(changes: readonly Change[], key: Key): boolean {
  if (changes.some(({ chord }) => chord.quality.family === 'power')) return true;
  const borrowed = changes.filter(
    ({ chord }) =>
      chord.quality.family === 'major' &&
      BORROWED.includes(halfSteps(intervalBetween(key.tonic, chord.root))),
  );
  return key.mode === 'major' && borrowed.length > 0;
}

/**
 * The idiom a chart states, or the one its feel and chords suggest: a ii–V makes jazz of a blues; riffs of
 * plain chords are rock; what suggests nothing is jazz, where each chord has its own scale.
 */
export function idiomOf(
  { source: { feel, idiom } }: Pick<Chart, 'source'>,
  changes: readonly Change[],
  { key, blues }: { readonly key: Key | null; readonly blues: boolean },
): IdiomReading {
  if (idiom !== null) return { name: idiom, given: true };
  const guess = (name: Idiom): IdiomReading => ({ name, given: false });
  const prepared = changes.some(({ chord }, place) => {
    const next = changes[place + 1];
    return next !== undefined && isTwoFive(chord, next.chord);
  });
  const [, said] = WORDS.find(([words]) => words.test(feel ?? '')) ?? [];
  if (said) return guess(said === 'blues' && prepared ? 'jazz' : said);
  if (key === null || prepared || !changes.every(isPlain)) return guess('jazz');
  if (blues) return guess('blues');
  return guess(isRiff(changes, key) ? 'rock' : 'jazz');
}

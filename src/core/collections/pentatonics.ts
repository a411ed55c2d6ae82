/** Which pentatonic is a chord's own. */
import type { Chord } from '../chords/chords';
import { degree } from '../notes/degrees';
import { simpleRoot, transpose } from '../notes/notes';
import { type Collection, collection } from './collections';

const FOURTH = degree('4');
const FIFTH = degree('5');
const FLAT_THIRD = degree('b3');

/**
 * The pentatonic that holds the chord's own triad: major on major and dominant chords, minor on
 * minor ones, the minor sixth one where their own sixth or seventh is the melodic minor's; over a sus chord the minor one from its fifth, over half-diminished and diminished
 * chords the minor sixth one from their flat third, over augmented ones the major one with a flat
 * sixth. Null where no pentatonic holds the triad.
 *
 * @example collectionName(ownPentatonic(parseChord('Dm7'))); // "D minor pentatonic"
 */
export function ownPentatonic(chord: Chord): Collection | null {
  const { family, degrees, core } = chord.quality;
  switch (family) {
    case 'major':
    case 'dominant':
      if (degrees.includes(FIFTH)) return collection(chord.root, 'major pentatonic');
      return core.includes(degree('#5'))
        ? collection(chord.root, 'major flat-sixth pentatonic')
        : null;
    case 'minor':
      if (!degrees.includes(FIFTH)) return null;
      return collection(
        chord.root,
        core.includes(degree('b7')) || core.length === 3
          ? 'minor pentatonic'
          : 'minor sixth pentatonic',
      );
    case 'suspended':
      return degrees.includes(FOURTH)
        ? collection(simpleRoot(transpose(chord.root, FIFTH)), 'minor pentatonic')
        : collection(chord.root, 'major pentatonic');
    case 'half-diminished':
    case 'diminished':
      return collection(simpleRoot(transpose(chord.root, FLAT_THIRD)), 'minor sixth pentatonic');
    case 'augmented':
      return collection(chord.root, 'major flat-sixth pentatonic');
    case 'power':
      return collection(chord.root, 'minor pentatonic');
  }
}

/**
 * The pentatonic by whose boxes a chord is found on the neck: its own, or, where the chord's fifth
 * is altered, the one in common use that holds most of it.
 *
 * @example collectionName(matchingPentatonic(parseChord('Cmaj7'))); // "C major pentatonic"
 */
export function matchingPentatonic(chord: Chord): Collection {
  const own = ownPentatonic(chord);
  if (own) return own;
  const minor = chord.quality.altered || chord.quality.family === 'minor';
  return minor
    ? collection(simpleRoot(transpose(chord.root, FLAT_THIRD)), 'minor pentatonic')
    : collection(chord.root, 'major flat-sixth pentatonic');
}

/** What is played over one chord: a named set of notes. */
import { type Chord, chordName, chordNotes } from '../chords/chords';
import {
  type Collection,
  collection,
  collectionName,
  collectionNotes,
} from '../collections/collections';
import { degree } from '../notes/degrees';
import { type Note, transpose } from '../notes/notes';

export const MATERIAL_KINDS = ['own-pentatonic', 'chord-tones'] as const;
export type MaterialKind = (typeof MATERIAL_KINDS)[number];

export interface Material {
  readonly name: string;
  readonly notes: readonly Note[];
  /** Null when the notes are an arpeggio. */
  readonly collection: Collection | null;
}

const ofCollection = (chosen: Collection): Material => ({
  name: collectionName(chosen),
  notes: collectionNotes(chosen),
  collection: chosen,
});

export const chordTones = (chord: Chord): Material => ({
  name: `${chordName({ ...chord, bass: null })} arpeggio`,
  notes: chordNotes(chord),
  collection: null,
});

const FOURTH = degree('4');
const FIFTH = degree('5');
const FLAT_THIRD = degree('b3');

/**
 * The pentatonic that holds the chord's own triad: major on major and dominant chords, minor on
 * minor ones; over a sus chord the minor one from its fifth and over a half-diminished chord the
 * minor sixth one from its flat third, which hold those chords whole. Null where the chord's
 * fifth is altered and no pentatonic holds it.
 */
export function ownPentatonic(chord: Chord): Collection | null {
  const { family, degrees } = chord.quality;
  switch (family) {
    case 'major':
    case 'dominant':
      return degrees.includes(FIFTH) ? collection(chord.root, 'major pentatonic') : null;
    case 'minor':
      return degrees.includes(FIFTH) ? collection(chord.root, 'minor pentatonic') : null;
    case 'suspended':
      return degrees.includes(FOURTH)
        ? collection(transpose(chord.root, FIFTH), 'minor pentatonic')
        : collection(chord.root, 'major pentatonic');
    case 'half-diminished':
      return collection(transpose(chord.root, FLAT_THIRD), 'minor sixth pentatonic');
    case 'power':
      return collection(chord.root, 'minor pentatonic');
    default:
      return null;
  }
}

/**
 * The pentatonic by whose boxes a chord is found on the neck: its own, or, where the chord's fifth
 * is altered, the one in common use that holds most of it.
 */
export function matchingPentatonic(chord: Chord): Collection {
  const own = ownPentatonic(chord);
  if (own) return own;
  const { name, family } = chord.quality;
  if (name === '7alt') return collection(transpose(chord.root, FLAT_THIRD), 'minor pentatonic');
  if (family === 'diminished' || family === 'minor') {
    return collection(transpose(chord.root, FLAT_THIRD), 'minor sixth pentatonic');
  }
  return collection(chord.root, 'major flat-sixth pentatonic');
}

/** The notes to play over a chord; chord tones where the chord has no pentatonic of its own. */
export function materialFor(chord: Chord, kind: MaterialKind): Material {
  const own = kind === 'own-pentatonic' ? ownPentatonic(chord) : null;
  return own ? ofCollection(own) : chordTones(chord);
}

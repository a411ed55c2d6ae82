/** What is played over one chord: a named set of notes. */
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { parseChord, quality } from '../chords/symbols';
import {
  type Collection,
  collection,
  collectionName,
  collectionNotes,
  parseCollection,
  pitchMask,
} from '../collections/collections';
import { degree } from '../notes/degrees';
import { type Note, simplify, transpose } from '../notes/notes';

export interface Material {
  /** `F lydian dominant`, `Abmaj7 arpeggio`, `Gb triad`; {@link parseMaterial} reads it back. */
  readonly name: string;
  readonly root: Note;
  /** The collection's name, `arpeggio` or `triad`. */
  readonly kind: string;
  readonly notes: readonly Note[];
  /** Its pitch classes, one bit each, C lowest. */
  readonly mask: number;
  /** Null when the notes are an arpeggio or a triad. */
  readonly collection: Collection | null;
}

const KNOWN = new Map<string, Material>();

function remember(name: string, make: () => Material): Material {
  const known = KNOWN.get(name);
  if (known) return known;
  const made = make();
  // Names of chords are endless; the usual ones are few.
  if (KNOWN.size > 4_096) KNOWN.clear();
  KNOWN.set(name, made);
  return made;
}

/** A collection as something to play. */
export function collectionMaterial(chosen: Collection): Material {
  const name = collectionName(chosen);
  return remember(name, () => {
    const notes = collectionNotes(chosen);
    const { root, kind } = chosen;
    return { name, root, kind: kind.name, notes, mask: pitchMask(notes), collection: chosen };
  });
}

function chordMaterial(chord: Chord, kind: 'arpeggio' | 'triad'): Material {
  const bare = { ...chord, bass: null };
  const name = `${chordName(bare)} ${kind}`;
  return remember(name, () => {
    const notes = chordNotes(bare);
    return { name, root: chord.root, kind, notes, mask: pitchMask(notes), collection: null };
  });
}

/** All tones of a chord, one after another. */
export const arpeggio = (chord: Chord): Material => chordMaterial(chord, 'arpeggio');

/** Three notes as a small movable shape. */
export const triad = (chord: Chord): Material => chordMaterial(chord, 'triad');

/** A chord by root and quality, for materials of the program's own making. */
export function chordOn(on: Note, qualityName: string): Chord {
  // A root with two accidentals takes its simpler name.
  const root = simplify(on);
  const bare = { symbol: '', root, quality: quality(qualityName), bass: null };
  return { ...bare, symbol: chordName(bare) };
}

/** Reads a name as {@link Material} gives it; null when it names nothing to play. */
export function parseMaterial(text: string): Material | null {
  const scale = parseCollection(text);
  if (scale) return collectionMaterial(scale);
  const match = /^(\S+) (arpeggio|triad)$/u.exec(text.trim());
  const chord = parseChord(match?.[1] ?? '');
  if (!chord || chord.bass !== null) return null;
  return match?.[2] === 'triad' ? triad(chord) : arpeggio(chord);
}

const FOURTH = degree('4');
const FIFTH = degree('5');
const FLAT_THIRD = degree('b3');

/**
 * The pentatonic that holds the chord's own triad: major on major and dominant chords, minor on
 * minor ones; over a sus chord the minor one from its fifth, over half-diminished and diminished
 * chords the minor sixth one from their flat third, over augmented ones the major one with a flat
 * sixth. Null where no pentatonic holds the triad.
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
      return degrees.includes(FIFTH) ? collection(chord.root, 'minor pentatonic') : null;
    case 'suspended':
      return degrees.includes(FOURTH)
        ? collection(transpose(chord.root, FIFTH), 'minor pentatonic')
        : collection(chord.root, 'major pentatonic');
    case 'half-diminished':
    case 'diminished':
      return collection(transpose(chord.root, FLAT_THIRD), 'minor sixth pentatonic');
    case 'augmented':
      return collection(chord.root, 'major flat-sixth pentatonic');
    case 'power':
      return collection(chord.root, 'minor pentatonic');
  }
}

/**
 * The pentatonic by whose boxes a chord is found on the neck: its own, or, where the chord's fifth
 * is altered, the one in common use that holds most of it.
 */
export function matchingPentatonic(chord: Chord): Collection {
  const own = ownPentatonic(chord);
  if (own) return own;
  const minor = chord.quality.name === '7alt' || chord.quality.family === 'minor';
  return minor
    ? collection(transpose(chord.root, FLAT_THIRD), 'minor pentatonic')
    : collection(chord.root, 'major flat-sixth pentatonic');
}

/** What is played where nothing was chosen: the own pentatonic, or the chord's tones without one. */
export function defaultMaterial(chord: Chord): Material {
  const own = ownPentatonic(chord);
  return own ? collectionMaterial(own) : arpeggio(chord);
}

/** The chords a collection holds. */
import { type Chord, chordName, chordNotes } from '../chords/chords';
import { quality } from '../chords/symbols';
import { type Collection, collectionNotes, pitchMask } from './collections';

const TRIADS = ['', 'm', 'dim', 'aug'].map(quality);
const SEVENTHS = ['maj7', '7', 'm7', 'm7b5', 'dim7', 'm(maj7)', 'maj7#5', '7#5'].map(quality);

function inside(collection: Collection, qualities: readonly Chord['quality'][]): readonly Chord[] {
  const mask = pitchMask(collectionNotes(collection));
  return collectionNotes(collection).flatMap((root) =>
    qualities
      .map((found): Chord => {
        const chord = { symbol: '', root, quality: found, bass: null };
        return { ...chord, symbol: chordName(chord) };
      })
      .filter((chord) => (pitchMask(chordNotes(chord)) & ~mask) === 0),
  );
}

/**
 * Major, minor, diminished and augmented triads on each of its notes.
 *
 * @example triadsInside(collection(note('C'), 'ionian')).map(chordName); // ["C","Dm","Em","F","G","Am","Bdim"]
 */
export const triadsInside = (collection: Collection): readonly Chord[] =>
  inside(collection, TRIADS);

/**
 * Seventh chords on each of its notes.
 *
 * @example seventhsInside(collection(note('C'), 'ionian')).map(chordName); // ["Cmaj7","Dm7","Em7","Fmaj7","G7","Am7","Bm7b5"]
 */
export const seventhsInside = (collection: Collection): readonly Chord[] =>
  inside(collection, SEVENTHS);

/** Chords: a root, a quality and perhaps another bass. */
import { type Interval, noteName, type Note, pitchClass, transpose } from '../notes/notes';
import type { Quality } from './qualities';

/** A chord: its root, its quality, its bass where another one is written. */
export interface Chord {
  /** As the player wrote it. */
  readonly symbol: string;
  readonly root: Note;
  readonly quality: Quality;
  /** The note under a slash; null when the root is the bass. */
  readonly bass: Note | null;
}

/**
 * Chord tones from the root up, in thirds.
 *
 * @example chordNotes(parseChord("Dm7")).map(noteName); // ["D","F","A","C"]
 */
export const chordNotes = (chord: Chord): readonly Note[] =>
  chord.quality.degrees.map((degree) => transpose(chord.root, degree));

/**
 * Root and quality sound the same, whatever the spelling; the bass is not compared.
 *
 * @example sameChord(parseChord('CM7'), parseChord('Cmaj7')); // true
 */
export function sameChord(a: Chord, b: Chord): boolean {
  return (
    pitchClass(a.root) === pitchClass(b.root) &&
    (a.quality === b.quality || a.quality.name === b.quality.name)
  );
}

/**
 * The chord's own tidy symbol: `Ebmaj7`, `Bm7b5/A`.
 *
 * @example chordName(parseChord("E♭Δ7")); // "Ebmaj7"
 */
export function chordName(chord: Chord): string {
  const bass = chord.bass === null ? '' : `/${noteName(chord.bass)}`;
  return noteName(chord.root) + chord.quality.name + bass;
}

/**
 * The chord at an interval above, its quality untouched; written tidily.
 *
 * @example chordName(transposeChord(parseChord('Dm7/C'), degree('2'))); // "Em7/D"
 */
export function transposeChord(chord: Chord, interval: Interval): Chord {
  const moved = {
    root: transpose(chord.root, interval),
    quality: chord.quality,
    bass: chord.bass === null ? null : transpose(chord.bass, interval),
  };
  return { ...moved, symbol: chordName({ ...moved, symbol: '' }) };
}

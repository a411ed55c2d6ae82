/**
 * Advice at a change: where the root of a chord sounds forced, and staying on what was played before is
 * musical. (What practitioners of the own-pentatonic school teach as its one exception.)
 */
import type { Chord } from '../chords/chords';
import type { Material } from '../lenses/material';
import { modulo } from '../lists';
import { degree } from '../notes/degrees';
import { noteName, type Note, pitchClass, transpose } from '../notes/notes';

/** A chord that is come to, and what is played over it and before it. */
export interface Arrival {
  readonly chord: Chord;
  /** What is played over it, and what was played before it; null where nothing was. */
  readonly material: Material;
  readonly before: Material | null;
  /** What the melody has as the chord comes; null where there is none. */
  readonly melody: Note | null;
}

const FLAT_SECOND = degree('b2');
const THIRD = degree('3');
const SEVENTH = degree('7');
const FLAT_SEVENTH = degree('b7');

/** Staying put is for pentatonics and blues scales: a whole scale has every root. */
const SMALL = 6;

const holds = ({ mask }: Material, note: Note): boolean => (mask & (1 << pitchClass(note))) !== 0;

/** Whether the chord has, or may have, a major seventh: a major chord with no other one. */
const isMajor = ({ quality: { degrees, family } }: Chord): boolean =>
  family === 'major' && degrees.includes(THIRD) && !degrees.includes(FLAT_SEVENTH);

/**
 * What a player is told as a chord comes: that its root rubs by a half step against the melody, or that the
 * choice before has the chord's third and its smoother major seventh; null where there is nothing to say.
 *
 * @example
 * // F major pentatonic after A minor pentatonic, which has the E.
 * adviceAt({ chord, material, before, melody: null }) // 'The root F sounds forced here: …'
 */
export function adviceAt({ chord, material, before, melody }: Arrival): string | null {
  const { root } = chord;
  if (!holds(material, root)) return null;
  const forced = `The root ${noteName(root)} sounds forced here`;
  const stay = before && !holds(before, root) ? ` Stay on ${before.name}.` : '';
  if (melody !== null && [1, 11].includes(modulo(pitchClass(melody) - pitchClass(root), 12))) {
    const rub = `the melody has ${noteName(melody)}, a half step from it.`;
    return `${forced}: ${rub}${stay === '' ? ' Let it pass.' : stay}`;
  }
  const seventh = transpose(root, SEVENTH);
  const smooth =
    stay !== '' &&
    before !== null &&
    isMajor(chord) &&
    holds(before, seventh) &&
    holds(before, transpose(root, THIRD)) &&
    !holds(before, transpose(root, FLAT_SECOND)) &&
    before.notes.length <= SMALL;
  return smooth
    ? `${forced}: ${before.name} has ${noteName(seventh)}, its smoother major seventh. Stay put.`
    : null;
}

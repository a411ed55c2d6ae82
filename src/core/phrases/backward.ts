/**
 * The third of a dominant in a blues: the minor third rises into the major one. The other way round sounds
 * backward to most players. (The common practice of blues phrasing.)
 */
import type { Chord } from '../chords/chords';
import { modulo } from '../lists';
import { degree } from '../notes/degrees';
import { halfSteps, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';

const THIRD = degree('3');
const SHARP_NINTH = degree('#2');

/** Whether a move within one chord is its major third falling to the minor one, over a plain dominant. */
export function fallsBackward({ root, quality }: Chord, from: Midi, to: Midi): boolean {
  if (from - to !== 1 || quality.family !== 'dominant' || quality.altered) return false;
  // Where the symbol has both thirds, both are chord tones.
  if (!quality.degrees.includes(THIRD) || quality.degrees.includes(SHARP_NINTH)) return false;
  return modulo(from - pitchClass(root), 12) === halfSteps(THIRD);
}

/** Local tonics: a chord that a ii–V or a V7 has just led to is home for its moment. */
import type { Chord } from '../chords/chords';
import { at, range } from '../lists';
import {
  canArrive,
  type Change,
  FALLING_FIFTH,
  HALF_STEP_DOWN,
  isDominantSeventh,
  isMinorChord,
  isTwoFive,
  rootMotion,
} from './changes';
import type { Key } from '../keys/keys';
import { isDiatonic } from './membership';

/** Whether a dominant comes down into a chord: by a fifth, or by a half step as its substitute. */
const leadsInto = (dominant: Chord, chord: Chord): boolean =>
  isDominantSeventh(dominant) &&
  (rootMotion(dominant, chord) === FALLING_FIFTH ||
    (dominant.quality.family === 'dominant' && rootMotion(dominant, chord) === HALF_STEP_DOWN));

/** Whether a chord prepares the dominant after it rather than resting. */
const prepares = (chord: Chord, next: Chord | undefined): boolean =>
  next !== undefined && isTwoFive(chord, next);

/**
 * The key of the moment for each change, null where that is the chart's own: from the ii–V that
 * leads to a chord outside the key until the chart moves on.
 */
export function localKeys(
  changes: readonly Change[],
  keyAt: (index: number) => Key | null,
): readonly (Key | null)[] {
  const found: (Key | null)[] = changes.map(() => null);
  const chordAt = (index: number) => changes[index]?.chord;
  const isForeign = (index: number) => {
    const key = keyAt(at(changes, index).first);
    return key !== null && !isDiatonic(at(changes, index).chord, key);
  };
  for (const index of range(1, changes.length)) {
    const { chord } = at(changes, index);
    const dominant = at(changes, index - 1).chord;
    const rests = canArrive(chord) && !prepares(chord, chordAt(index + 1));
    if (!rests || !leadsInto(dominant, chord) || !isForeign(index)) continue;
    const key: Key = { tonic: chord.root, mode: isMinorChord(chord) ? 'minor' : 'major' };
    const supertonic = chordAt(index - 2);
    const prepared = supertonic !== undefined && prepares(supertonic, dominant);
    for (const before of range(index - (prepared ? 2 : 1), index + 1)) found[before] = key;
    for (let after = index + 1; after < changes.length; after++) {
      const next = at(changes, after).chord;
      const stays =
        isForeign(after) && isDiatonic(next, key) && !prepares(next, chordAt(after + 1));
      if (!stays) break;
      found[after] = key;
    }
  }
  return found;
}

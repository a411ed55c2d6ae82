/** What goes round and round: loops, and the keys that only their going round tells. */
import { type Chord, sameChord } from '../chords/chords';
import type { Key, KeyMode } from '../keys/keys';
import { at, range } from '../lists';
import { halfSteps, intervalBetween, type Note } from '../notes/notes';
import { type Change, isMinorChord, rootMotion, swayOf } from './changes';
import { isDiatonic, isInScale } from './membership';

/** A loop is so many chords at the most, round and round; what it is in is never quite certain. */
export const LOOP = { chords: 4, certain: 0.8 } as const;

/**
 * Whether a chart is a few plain triads round and round: what most players bring. Its last chord leads back
 * to the first, and a fall of a fifth in it is seldom a cadence.
 */
export const isLoop = (changes: readonly Change[]): boolean =>
  changes.every(({ chord }) => chord.quality.degrees.length <= 3) && goesRound(changes);

/** Whether a chart is no more than a few chords round and round. */
export function goesRound(changes: readonly Change[]): boolean {
  const name = ({ chord }: Change) => `${chord.root} ${chord.quality.name}`;
  return range(2, LOOP.chords + 1).some((period) =>
    changes.every((change, index) => name(change) === name(at(changes, index % period))),
  );
}

const VAMP_MODES: readonly KeyMode[] = ['dorian', 'mixolydian', 'phrygian', 'lydian'];

/** Two chords going round with no cadence are a mode on the first of them. */
export function vampKey(changes: readonly Change[]): Key | null {
  if (distinctChords(changes).length !== 2 || (changes.length < 4 && !goesRound(changes)))
    return null;
  const first = at(changes, 0).chord;
  const modes = VAMP_MODES.filter(
    (mode) => (mode === 'dorian' || mode === 'phrygian') === isMinorChord(first),
  );
  const home: Key = { tonic: first.root, mode: isMinorChord(first) ? 'minor' : 'major' };
  if (changes.every(({ chord }) => isInScale(chord, home, 0))) return null;
  const mode = modes.find((name) =>
    changes.every(({ chord }) => isDiatonic(chord, { tonic: first.root, mode: name })),
  );
  return mode === undefined ? null : { tonic: first.root, mode };
}

/** Two major chords a half step apart, back and forth, centre on the lower one. */
export function swayKey(changes: readonly Change[]): Key | null {
  const sway = changes.length < 4 && !isLoop(changes) ? null : swayOf(distinctChords(changes));
  return sway && { tonic: sway[0].root, mode: 'phrygian' };
}

/** A loop on a chord with its flat second beside it, all of it in phrygian: the first chord major or minor. */
export function phrygianKey(changes: readonly Change[]): Key | null {
  if (!isLoop(changes)) return null;
  const first = at(changes, 0).chord;
  const key: Key = { tonic: first.root, mode: 'phrygian' };
  const beside = [changes[1], changes.at(-1)].some(
    (one) => one !== undefined && rootMotion(first, one.chord) === 1 && !isMinorChord(one.chord),
  );
  const others = changes.filter(({ chord }) => !sameChord(chord, first));
  return beside && others.every(({ chord }) => isInScale(chord, key, 0)) ? key : null;
}

/** Roots of rounds that turn back to their first chord, whatever its seventh: major and dominant chords. */
const ROUNDS: readonly (readonly number[])[] = [
  [0, 9, 2, 7],
  [0, 3, 2, 7],
  [0, 3, 8, 1],
  [0, 8, 7],
];

/** The key of a round whose chords only their roots hold together: I7 VI7 II7 V7 and its kin. */
export function roundKey(changes: readonly Change[]): Key | null {
  const first = at(changes, 0).chord;
  if (isMinorChord(first) || !goesRound(changes)) return null;
  const roots = changes.map(({ chord }) => rootMotion(first, chord));
  const known = ROUNDS.some(
    (round) =>
      roots.length >= round.length &&
      roots.every((root, index) => root === at(round, index % round.length)),
  );
  const alike = changes.every(({ chord }) => chord.quality.name === first.quality.name);
  return known && alike ? { tonic: first.root, mode: 'major' } : null;
}

const distinctChords = (changes: readonly Change[]): readonly Chord[] => [
  ...new Map(changes.map(({ chord }) => [`${chord.root} ${chord.quality.name}`, chord])).values(),
];

const THIRDS: readonly number[] = [3, 4, 8, 9];

/**
 * One sound moved about, that no key holds: minor chords in parallel, or major ones a third apart.
 */
export function isParallel(changes: readonly Change[]): boolean {
  const distinct = distinctChords(changes);
  const [first] = distinct;
  if (!first || distinct.length < 2) return false;
  if (distinct.some(({ quality }) => quality.name !== first.quality.name)) return false;
  const held = (key: Key) => distinct.every((chord) => isInScale(chord, key, 0));
  const owned = distinct.some(({ root }) =>
    range(0, 12).some((up) => held({ tonic: (root + up) as Note, mode: 'major' })),
  );
  if (owned) return false;
  if (first.quality.family === 'minor') return true;
  const apart = changes
    .slice(1)
    .every(({ chord }, index) => THIRDS.includes(rootMotion(at(changes, index).chord, chord)));
  return first.quality.family === 'major' && apart;
}

/**
 * A dominant that a loop begins with and comes back to over its flat seventh is at home, in mixolydian: no
 * chord a fourth above follows it.
 */
export function mixolydianKey(changes: readonly Change[]): Key | null {
  const first = at(changes, 0).chord;
  if (first.quality.family !== 'dominant' || changes.length > LOOP.chords + 1) return null;
  const key: Key = { tonic: first.root, mode: 'mixolydian' };
  const above = (chord: Chord) => halfSteps(intervalBetween(first.root, chord.root));
  const leads = changes.some(
    ({ chord }, index) =>
      above(chord) === 0 && above(at(changes, (index + 1) % changes.length).chord) === 5,
  );
  const flat = changes.some(({ chord }) => above(chord) === 10);
  return flat && !leads && changes.every(({ chord }) => isDiatonic(chord, key)) ? key : null;
}

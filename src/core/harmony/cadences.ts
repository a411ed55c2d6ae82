/** Cadences: where the harmony prepares and arrives. */
import type { Chord } from '../chords/chords';
import { at } from '../lists';
import { halfSteps, type Interval, intervalBetween, transpose } from '../notes/notes';
import {
  canArrive,
  type Change,
  FALLING_FIFTH,
  HALF_STEP_DOWN,
  isDominantSeventh,
  isMinorChord,
  isSupertonic,
  isTwoFive,
  pullsAsDominant,
  rootMotion,
} from './changes';
import type { Key } from '../keys/keys';
import { BEAT } from '../time/units';

type CadenceKind =
  | 'ii-V-I major'
  | 'ii-V-I minor'
  | 'ii-bII-I'
  | 'ii-V'
  | 'ii-V chain'
  | 'V-I'
  | 'IV-I'
  | 'bVII-I'
  | 'turnaround';

/** Cadences that arrive at the tonic from its dominant. */
export const ARRIVALS: ReadonlySet<CadenceKind> = new Set(['V-I', 'ii-V-I major', 'ii-V-I minor']);

/** `from` and `to` are chord indices in the chart; `key` the key it belongs to. */
export interface Cadence {
  readonly kind: CadenceKind;
  readonly from: number;
  readonly to: number;
  readonly key: Key;
}

const FIFTH_UP = 1 as Interval;

const keyOf = (tonic: Chord): Key => ({
  tonic: tonic.root,
  mode: isMinorChord(tonic) ? 'minor' : 'major',
});

/** ii–V with or without its arrival, starting at change `index`; null when there is none. */
function twoFiveAt(changes: readonly Change[], index: number): Cadence | null {
  const two = at(changes, index);
  const five = changes[index + 1];
  const one = changes[index + 2];
  if (!five || !isSupertonic(two.chord) || !isDominantSeventh(five.chord)) return null;
  const substitute = rootMotion(two.chord, five.chord) === HALF_STEP_DOWN;
  if (!isTwoFive(two.chord, five.chord) && !substitute) return null;
  const fall = substitute ? HALF_STEP_DOWN : FALLING_FIFTH;
  if (one && canArrive(one.chord) && rootMotion(five.chord, one.chord) === fall) {
    const key = keyOf(one.chord);
    const major = key.mode === 'major' ? 'ii-V-I major' : 'ii-V-I minor';
    const resting = !isNextTwoFive(changes, index + 2);
    if (resting || key.mode === 'major') {
      return { kind: substitute ? 'ii-bII-I' : major, from: two.first, to: one.last, key };
    }
  }
  if (substitute) return null;
  const minor = two.chord.quality.family === 'half-diminished';
  const tonic = transpose(five.chord.root, -FIFTH_UP as Interval);
  const key: Key = { tonic, mode: minor ? 'minor' : 'major' };
  return { kind: 'ii-V', from: two.first, to: five.last, key };
}

/** iv–bVII7 in a major key prepares the tonic by the back door, not a ii–V of the flat third. */
const isBackdoor = (first: Chord, cadence: Cadence, key: Key | null): boolean =>
  cadence.kind === 'ii-V' &&
  key?.mode === 'major' &&
  halfSteps(intervalBetween(key.tonic, first.root)) === 5;

/** The two chords of a dorian key at home are its i and IV, not a ii–V of somewhere else. */
const isDorianHome = (first: Chord, cadence: Cadence, key: Key | null): boolean =>
  cadence.kind === 'ii-V' &&
  key?.mode === 'dorian' &&
  halfSteps(intervalBetween(key.tonic, first.root)) === 0;

/** A minor chord that is at once the ii of the next dominant is no place of rest. */
function isNextTwoFive(changes: readonly Change[], index: number): boolean {
  const two = changes[index];
  const five = changes[index + 1];
  return two !== undefined && five !== undefined && isTwoFive(two.chord, five.chord);
}

function arrivalAt(changes: readonly Change[], index: number, key: Key): Cadence | null {
  const change = at(changes, index);
  const next = changes[index + 1];
  if (!next || !canArrive(next.chord)) return null;
  if (halfSteps(intervalBetween(key.tonic, next.chord.root)) !== 0) return null;
  const degree = halfSteps(intervalBetween(key.tonic, change.chord.root));
  const place = { from: change.first, to: next.last, key };
  if (degree === 7 && pullsAsDominant(change.chord)) return { kind: 'V-I', ...place };
  if (degree === 10 && change.chord.quality.family === 'dominant') {
    return { kind: 'bVII-I', ...place };
  }
  if (degree === 5 && !isDominantSeventh(change.chord)) return { kind: 'IV-I', ...place };
  return null;
}

/** Roots of the commonest turnarounds, in half steps above the tonic. */
const TURNAROUND_ROOTS: readonly (readonly number[])[] = [
  [0, 9, 2, 7],
  [4, 9, 2, 7],
  [0, 1, 2, 7],
  [0, 3, 2, 7],
  [0, 3, 8, 1],
  [0, 9, 8, 7],
  [0, 9, 5, 7],
];

function turnaroundAt(changes: readonly Change[], index: number, key: Key): Cadence | null {
  const four = changes.slice(index, index + 4);
  if (four.length < 4 || four.some(({ beats }) => beats > 4 * BEAT)) return null;
  const roots = four.map(({ chord }) => halfSteps(intervalBetween(key.tonic, chord.root)));
  const known = TURNAROUND_ROOTS.some((pattern) => pattern.every((root, i) => root === roots[i]));
  if (!known) return null;
  return { kind: 'turnaround', from: at(four, 0).first, to: at(four, 3).last, key };
}

/** Runs of two or more ii–V's, each leading on to the next instead of arriving. */
function chainsOf(cadences: readonly Cadence[]): readonly Cadence[] {
  const chains: Cadence[] = [];
  let run: Cadence[] = [];
  const close = () => {
    const first = run[0];
    const last = run.at(-1);
    if (run.length > 1 && first && last) {
      chains.push({ kind: 'ii-V chain', from: first.from, to: last.to, key: last.key });
    }
    run = [];
  };
  for (const cadence of cadences) {
    const previous = run.at(-1);
    const leadsOn =
      previous?.kind === 'ii-V' &&
      cadence.from === previous.to + 1 &&
      cadence.key.tonic !== previous.key.tonic;
    if (previous && !leadsOn) close();
    run.push(cadence);
  }
  close();
  return chains;
}

/** All cadences in the order of the chart; `keyAt` answers the key in force at a chord index. */
export function findCadences(
  changes: readonly Change[],
  keyAt: (index: number) => Key | null,
): readonly Cadence[] {
  const twoFives: Cadence[] = [];
  const others: Cadence[] = [];
  changes.forEach((change, index) => {
    const key = keyAt(change.first);
    const twoFive = twoFiveAt(changes, index);
    const elsewhere =
      twoFive !== null &&
      (isBackdoor(change.chord, twoFive, key) || isDorianHome(change.chord, twoFive, key));
    if (twoFive && !elsewhere) twoFives.push(twoFive);
    if (!key) return;
    const turnaround = turnaroundAt(changes, index, key);
    if (turnaround) others.push(turnaround);
    const arrival = arrivalAt(changes, index, key);
    const prepared = twoFives.some(
      (cadence) => arrival !== null && cadence.from < arrival.from && cadence.to === arrival.to,
    );
    if (arrival && !prepared) others.push(arrival);
  });
  const all = [...twoFives, ...chainsOf(twoFives), ...others];
  return all.sort((a, b) => a.from - b.from || b.to - a.to);
}

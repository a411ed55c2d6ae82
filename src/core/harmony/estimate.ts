/**
 * Estimating a chart's key: every candidate is scored by how much of the harmony it owns, with
 * a weight for the first and last chord and for cadences that arrive on its tonic, after the
 * scale-membership models surveyed by Temperley, "The Cognition of Basic Musical Structures" (2001).
 */
import type { Chart } from '../chart/form';
import { type Chord, sameChord } from '../chords/chords';
import { at, range } from '../lists';
import { halfSteps, intervalBetween, type Note, pitchClass, spellNear } from '../notes/notes';
import { findBlues } from './blues';
import {
  canArrive,
  type Change,
  changesOf,
  FALLING_FIFTH,
  isMinorChord,
  isSupertonic,
  isTwoFive,
  pullsAsDominant,
  rootMotion,
  swayOf,
} from './changes';
import type { Key, KeyMode } from '../keys/keys';
import { diatonicShare, isDiatonic, isInScale, withoutTensions } from './membership';
import { inBeats } from '../time/units';

/** The key a chart is heard in, with those that are nearly as likely. */
export interface KeyEstimate {
  /** Null when no single key explains the chart. */
  readonly key: Key | null;
  /** 0–1: how clearly the key stands out; 1 when the chart or the player states it. */
  readonly confidence: number;
  readonly given: boolean;
  /** The likeliest two, best first, where nothing is stated and any was heard. */
  readonly likeliest: readonly KeyHeard[];
}

/** A key that may be meant, with how clearly it stands out, 0–1. */
interface KeyHeard {
  readonly key: Key;
  readonly confidence: number;
}

/** How much each sign of a key counts; owning a chord for one bar of four counts 1. */
const WEIGHTS = {
  outsideChord: 0.35,
  parallelChord: 0.4,
  /** A chord that only the rising melodic minor owns. */
  melodicChord: 0.75,
  /** One whose tensions alone leave the key. */
  tensionedChord: 0.75,
  firstTonic: 1.2,
  lastTonic: 1.5,
  tonicPresent: 0.8,
  arrival: 1.6,
  arrivalAfterSupertonic: 0.8,
  supertonicDominant: 0.7,
  /** A loop's first chord, which it comes home to; and how much a triad's fall of a fifth says in one. */
  loopTonic: 2.7,
  loopArrival: 0.35,
  /** How much a seventh on the root of a round's first chord says of the chord it falls to. */
  awayFromHome: 0.2,
} as const;

/** A loop is so many chords at the most, round and round; what it is in is never quite certain. */
const LOOP = { chords: 4, certain: 0.8 } as const;

/** Below this share of the time at home, no key is said to hold the chart. */
const LEAST_SHARE_AT_HOME = 0.5;
/** What a key that is not the best must hold, and how near to the best it must be, to be said all the same. */
const MOST_AT_HOME = 0.75;
const NEARLY = 0.85;

interface Candidate {
  readonly key: Key;
  readonly score: number;
  readonly home: number;
  /** Whether the tonic chord is heard, or a cadence points to it; whether a cadence does. */
  readonly pointed: boolean;
  readonly led: boolean;
}

const isTonicChord = (chord: Chord, key: Key): boolean =>
  pitchClass(chord.root) === pitchClass(key.tonic) &&
  (key.mode === 'minor' ? isMinorChord(chord) : !isMinorChord(chord));

const PARALLEL: Readonly<Record<KeyMode, KeyMode>> = {
  major: 'minor',
  minor: 'major',
  dorian: 'minor',
  phrygian: 'minor',
  lydian: 'major',
  mixolydian: 'major',
  locrian: 'minor',
};

function ownership(chord: Chord, key: Key): number {
  if (isInScale(chord, key, 0) || isInScale(chord, key, 1)) return 1;
  if (isDiatonic(chord, key)) return WEIGHTS.melodicChord;
  if (isInScale(withoutTensions(chord), key, 0)) return WEIGHTS.tensionedChord;
  if (isDiatonic(chord, { tonic: key.tonic, mode: PARALLEL[key.mode] })) {
    return WEIGHTS.parallelChord;
  }
  return WEIGHTS.outsideChord * diatonicShare(chord, key);
}

const weightOf = (change: Change): number => Math.sqrt(inBeats(change.beats) / 4);

/**
 * Whether a chart is a few plain triads round and round: what most players bring. Its last chord leads back
 * to the first, and a fall of a fifth in it is seldom a cadence.
 */
const isLoop = (changes: readonly Change[]): boolean =>
  changes.every(({ chord }) => chord.quality.degrees.length <= 3) && goesRound(changes);

/** Whether a chart is no more than a few chords round and round. */
function goesRound(changes: readonly Change[]): boolean {
  const name = ({ chord }: Change) => `${chord.root} ${chord.quality.name}`;
  return range(2, LOOP.chords + 1).some((period) =>
    changes.every((change, index) => name(change) === name(at(changes, index % period))),
  );
}

function cadenceScore(changes: readonly Change[], key: Key, { loop, round }: Course): number {
  let score = 0;
  const home = at(changes, 0).chord;
  /** A round that rests on its first chord only leaves it by a seventh on the same root. */
  const ofHome = ({ root }: Chord) => canArrive(home) && pitchClass(root) === pitchClass(home.root);
  changes.forEach(({ chord }, index) => {
    const next = changes[(index + 1) % changes.length]?.chord;
    if (!next || !pullsAsDominant(chord)) return;
    const supertonic = changes[index - 1]?.chord;
    const prepared =
      supertonic !== undefined &&
      isSupertonic(supertonic) &&
      halfSteps(intervalBetween(key.tonic, supertonic.root)) === 2;
    const above = halfSteps(intervalBetween(key.tonic, chord.root));
    const substitute = above === 1 && chord.quality.family === 'dominant';
    if (above !== 7 && !substitute) return;
    const plain = chord.quality.degrees.length > 3 ? 1 : loop ? WEIGHTS.loopArrival : 0.6;
    const away = round && ofHome(chord) ? WEIGHTS.awayFromHome : null;
    if (isTonicChord(next, key) && canArrive(next)) {
      score += WEIGHTS.arrival * (away ?? plain);
      score += prepared ? WEIGHTS.arrivalAfterSupertonic * (away ?? 1) : 0;
    } else if (prepared) {
      const minorPreparation = supertonic.quality.family === 'half-diminished';
      if (minorPreparation === (key.mode === 'minor')) score += WEIGHTS.supertonicDominant;
    }
  });
  return score;
}

/** Whether the last chord is an end: what goes round on a chord of rest ends only where its dominant leads. */
function endsOn(changes: readonly Change[], loop: boolean, round: boolean): boolean {
  const [before, last] = [changes.at(-2)?.chord, at(changes, changes.length - 1).chord];
  if (loop) return false;
  const home = at(changes, 0).chord;
  if (!round || !canArrive(home) || !before) return true;
  const away = pitchClass(before.root) === pitchClass(home.root);
  return !away && pullsAsDominant(before) && rootMotion(before, last) === FALLING_FIFTH;
}

const FLAT_SEVENTH = 10;

/**
 * Whether the first chord may be what the chart is in: neither the ii of a ii–V–I that follows at once nor,
 * in what goes round, upside down; over its own seventh it is on the way from where it was at home.
 */
function beginsAtHome(changes: readonly Change[], round: boolean): boolean {
  const [{ chord: first }, second, third] = [at(changes, 0), changes[1]?.chord, changes[2]?.chord];
  const arrives =
    second !== undefined &&
    third !== undefined &&
    isTwoFive(first, second) &&
    canArrive(third) &&
    rootMotion(second, third) === FALLING_FIFTH;
  if (arrives) return false;
  if (!round) return true;
  const bass = first.bass === null ? 0 : halfSteps(intervalBetween(first.root, first.bass));
  return bass === 0 || bass >= FLAT_SEVENTH;
}

/** What holds of a row of chords whatever key it is held against: worked out once for all of them. */
interface Course {
  readonly loop: boolean;
  readonly round: boolean;
  /** Whether its first chord may be what it is in, and its last one an end. */
  readonly begins: boolean;
  readonly ends: boolean;
}

function courseOf(changes: readonly Change[]): Course {
  const [loop, round] = [isLoop(changes), goesRound(changes)];
  return { loop, round, begins: beginsAtHome(changes, round), ends: endsOn(changes, loop, round) };
}

function scoreKey(changes: readonly Change[], key: Key, course: Course): Candidate {
  const { loop } = course;
  let score = 0;
  let home = 0;
  let total = 0;
  for (const change of changes) {
    const owned = ownership(change.chord, key);
    score += weightOf(change) * owned;
    total += change.beats;
    // What a loop borrows from the parallel key is at home in it.
    if (owned >= (loop ? WEIGHTS.parallelChord : WEIGHTS.melodicChord)) home += change.beats;
  }
  const first = at(changes, 0).chord;
  const last = at(changes, changes.length - 1).chord;
  if (isTonicChord(first, key) && course.begins)
    score += loop ? WEIGHTS.loopTonic : WEIGHTS.firstTonic;
  if (isTonicChord(last, key) && course.ends) score += WEIGHTS.lastTonic;
  const present = changes.some(({ chord }) => isTonicChord(chord, key) && canArrive(chord));
  if (present) score += WEIGHTS.tonicPresent;
  const cadences = cadenceScore(changes, key, course);
  return {
    key,
    score: score + cadences,
    home: home / total,
    pointed: present || cadences > 0,
    led: cadences > 0,
  };
}

/**
 * The twelve tonics, from the first root round the circle so that equal scores are settled alike
 * in every key; each spelled as the chart spells it, or near its chords otherwise.
 */
function tonicsFor(changes: readonly Change[]): readonly Note[] {
  const mean = changes.reduce((sum, { chord }) => sum + chord.root, 0) / changes.length;
  const centre = Math.max(-1, Math.min(1, Math.round(mean))) as Note;
  const written = new Map(changes.map(({ chord }) => [pitchClass(chord.root), chord.root]));
  const first = pitchClass(at(changes, 0).chord.root);
  return range(0, 12).map((fifths) => {
    const pitch = (first + 7 * fifths) % 12;
    return written.get(pitch) ?? spellNear(pitch, centre);
  });
}

const VAMP_MODES: readonly KeyMode[] = ['dorian', 'mixolydian', 'phrygian', 'lydian'];

/** Two chords going round with no cadence are a mode on the first of them. */
function vampKey(changes: readonly Change[]): Key | null {
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
function swayKey(changes: readonly Change[]): Key | null {
  const sway = changes.length < 4 && !isLoop(changes) ? null : swayOf(distinctChords(changes));
  return sway && { tonic: sway[0].root, mode: 'phrygian' };
}

/** A loop on a chord with its flat second beside it, all of it in phrygian: the first chord major or minor. */
function phrygianKey(changes: readonly Change[]): Key | null {
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
function roundKey(changes: readonly Change[]): Key | null {
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
function isParallel(changes: readonly Change[]): boolean {
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
function mixolydianKey(changes: readonly Change[]): Key | null {
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

const NO_KEY: KeyEstimate = { key: null, confidence: 0, given: false, likeliest: [] };
const rounded = (share: number): number => Math.round(100 * share) / 100;

/**
 * Estimates the key of chords alone, whatever the chart states.
 *
 * @example keyName(estimateKey(read('| Am | F | C | G |')).key); // "A minor"
 */
export function estimateKey(chart: Pick<Chart, 'chords'>): KeyEstimate {
  const changes = changesOf(chart.chords);
  if (changes.length === 0 || isParallel(changes)) return NO_KEY;
  const course = courseOf(changes);
  const candidates = tonicsFor(changes)
    .flatMap((tonic) => [
      scoreKey(changes, { tonic, mode: 'major' }, course),
      scoreKey(changes, { tonic, mode: 'minor' }, course),
    ])
    .sort((a, b) => b.score - a.score);
  const best = at(candidates, 0);
  const second = at(candidates, 1);
  /** A key with the likeliest other one beside it. */
  const beside = (key: Key, confidence: number): KeyEstimate => {
    // A mode on a tonic stands for that tonic's major and minor as well.
    const modal = key.mode !== 'major' && key.mode !== 'minor';
    const same = (one: Candidate) =>
      pitchClass(one.key.tonic) === pitchClass(key.tonic) && (modal || one.key.mode === key.mode);
    const other = candidates.find((one) => one.pointed && !same(one)) ?? second;
    const share = Math.min(confidence, 1 - confidence, (confidence * other.score) / best.score);
    const likeliest = [
      { key, confidence },
      { key: other.key, confidence: rounded(Math.max(0, share)) },
    ];
    return { key, confidence, given: false, likeliest };
  };
  const vamp =
    swayKey(changes) ?? vampKey(changes) ?? mixolydianKey(changes) ?? phrygianKey(changes);
  if (vamp) return beside(vamp, 0.7);
  const blues = findBlues(changes);
  if (blues) return beside(blues, 0.9);
  const margin = (best.score - second.score) / best.score;
  const clear = rounded(Math.min(1, best.home * (0.4 + 2.4 * margin)));
  const confidence = course.loop ? Math.min(LOOP.certain, clear) : clear;
  const single = best.pointed && (best.home >= LEAST_SHARE_AT_HOME || confidence >= 0.4);
  if (single) return beside(best.key, confidence);
  const round = roundKey(changes);
  if (round) return beside(round, 0.5);
  // One that a cadence points to and that holds most of it, nearly as good.
  const near = candidates.find(
    ({ led, home, score }) => led && home >= MOST_AT_HOME && score >= NEARLY * best.score,
  );
  return near ? beside(near.key, 0.4) : { ...NO_KEY, confidence };
}

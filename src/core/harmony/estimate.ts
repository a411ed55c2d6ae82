/**
 * Estimating a chart's key: every candidate is scored by how much of the harmony it owns, with
 * a weight for the first and last chord and for cadences that arrive on its tonic, after the
 * scale-membership models surveyed by Temperley, "The Cognition of Basic Musical Structures" (2001).
 */
import type { Chart } from '../chart/form';
import type { Chord } from '../chords/chords';
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
} from './changes';
import {
  goesRound,
  isLoop,
  isParallel,
  LOOP,
  mixolydianKey,
  phrygianKey,
  roundKey,
  swayKey,
  vampKey,
} from './loops';
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

/** A material held against a chord: what it covers, misses, clashes with and adds. */
import { rememberBy } from '../cache';
import { type Chord, chordNotes } from '../chords/chords';
import { degreeOver, readOver } from '../chords/over';
import { collection, collectionNotes, pitchMask } from '../collections/collections';
import { type Key, keyScales } from '../keys/keys';
import { degreeName } from '../notes/degrees';
import { halfSteps, type Interval, type Note, pitchClass, transpose } from '../notes/notes';
import type { Material } from './material';

/** A note of the material a half step above a chord tone: a passing note, not one to hold. */
export interface Clash {
  readonly note: Note;
  readonly degree: Interval;
  /** The chord tone a half step below it. */
  readonly above: Note;
}

/** How a material sounds over a chord, note by note. */
export interface Assessment {
  /** Of each note of the material over the chord, in the material's order. */
  readonly degrees: readonly Interval[];
  /** Chord tones within the material, and those it lacks. */
  readonly covered: readonly Note[];
  readonly missing: readonly Note[];
  readonly clashes: readonly Clash[];
  /** Blue notes, which are bent and passed through and never count as clashes. */
  readonly blue: readonly Note[];
  /** Tensions gained: none of the others. */
  readonly colours: readonly Note[];
  /** Natural tensions and fifths that an altered chord symbol rules out. */
  readonly against: readonly Note[];
  readonly outsideKey: readonly Note[];
  /** Guide tones of the chord within the material, and how many it has. */
  readonly guideTones: readonly Note[];
  readonly guideToneCount: number;
}

/** What an assessment needs to know besides chord and material. */
interface Surroundings {
  /** The key whose notes are inside; null when there is none. */
  readonly key: Key | null;
  /** The tonic of a blues, whose flat third and fifth are blue; null elsewhere. */
  readonly bluesTonic: Note | null;
}

/** Outside every key and every blues. */
export const NOWHERE: Surroundings = { key: null, bluesTonic: null };

/** The collections over whose dominant b9 and b13 do not clash. */
const ALTERED_COLLECTIONS = ['altered', 'phrygian dominant', 'half-whole diminished'] as const;
const FLAT_NINTH_SIZE = 1;
const FLAT_THIRTEENTH_SIZE = 8;
const BLUE_SIZES = { third: 3, fifth: 6 } as const;

const C = 0 as Note;
const ALTERED_MASKS = ALTERED_COLLECTIONS.map((name) =>
  pitchMask(collectionNotes(collection(C, name))),
);

const TRIAD = 3;

const rotate = (mask: number, by: number): number => ((mask << by) | (mask >> (12 - by))) & 0xfff;

/** Whether b9 and b13 are the very sound of the dominant here, and so no clashes. */
function altersDominant({ root, quality }: Chord, mask: number): boolean {
  // A plain major triad may be a dominant too.
  const triad = quality.family === 'major' && quality.core.length === TRIAD;
  if (quality.family !== 'dominant' && !triad) return false;
  if (quality.altered) return true;
  const up = pitchClass(root);
  return ALTERED_MASKS.some((altered) => (mask & ~rotate(altered, up)) === 0);
}

/** Every note a key owns, a minor key both sixths and both sevenths. */
const keyMask = rememberBy(
  (key: Key) => `${key.tonic} ${key.mode}`,
  (key) =>
    pitchMask(keyScales(key).flatMap((scale) => scale.map((one) => transpose(key.tonic, one)))),
);

/** A natural degree and what of a dominant rules it out, in half steps above the root. */
const RULED_OUT: readonly (readonly [natural: number, by: readonly number[]])[] = [
  [2, [1, 3]],
  [7, [8]],
  [9, [8]],
];

/** Whether a dominant's own alterations speak against a note so many half steps above its root. */
function speaksAgainst({ quality }: Chord, size: number): boolean {
  if (quality.family !== 'dominant') return false;
  const rule = RULED_OUT.find(([natural]) => natural === size);
  if (!rule) return false;
  // An altered chord names no fifth and no tension: all of them are bent.
  if (quality.altered) return true;
  return quality.degrees.some((tone) => rule[1].includes(halfSteps(tone)));
}

const sizeAbove = (root: Note, pitch: number): number => (pitch - pitchClass(root) + 12) % 12;

function isBlue(material: Material, bluesTonic: Note | null, pitch: number): boolean {
  const blueOf = (root: Note) => {
    const size = sizeAbove(root, pitch);
    return size === BLUE_SIZES.third || size === BLUE_SIZES.fifth;
  };
  if (material.collection?.kind.family === 'blues' && blueOf(material.root)) return true;
  return bluesTonic !== null && blueOf(bluesTonic);
}

/**
 * Holds a material against a chord. The clash rule: a note a half step above a chord tone clashes
 * as a held note; b9 and b13 over a dominant whose collection is altered, phrygian dominant or
 * half-whole do not, nor do blue notes. After the avoid notes of Nettles and Graf, "The Chord
 * Scale Theory and Jazz Harmony" (1997).
 */
export function assess(
  chord: Chord,
  material: Material,
  { key, bluesTonic }: Surroundings,
): Assessment {
  const tones = chordNotes(chord);
  const toneAt: (Note | undefined)[] = Array.from({ length: 12 });
  for (const tone of tones) toneAt[pitchClass(tone)] = tone;
  // What stands in the bass is a tone of the moment: a half step above it clashes as well.
  if (chord.bass !== null) toneAt[pitchClass(chord.bass)] ??= chord.bass;
  const read = readOver(chord, material.notes);
  const inside = key === null ? 0xfff : keyMask(key);
  const exempt = altersDominant(chord, material.mask);
  const clashes: Clash[] = [];
  const blue: Note[] = [];
  const colours: Note[] = [];
  const against: Note[] = [];
  const outsideKey: Note[] = [];
  for (const { note, degree } of read) {
    const pitch = pitchClass(note);
    if ((inside & (1 << pitch)) === 0) outsideKey.push(note);
    if (toneAt[pitch] !== undefined) continue;
    const above = toneAt[(pitch + 11) % 12];
    const size = sizeAbove(chord.root, pitch);
    const tension = size === FLAT_NINTH_SIZE || size === FLAT_THIRTEENTH_SIZE;
    if (isBlue(material, bluesTonic, pitch)) blue.push(note);
    else if (above !== undefined && !(exempt && tension)) {
      clashes.push({ note, degree, above });
    } else if (speaksAgainst(chord, size)) against.push(note);
    else colours.push(note);
  }
  const has = (tone: Note) => (material.mask & (1 << pitchClass(tone))) !== 0;
  const guideTones = chord.quality.guideTones.map((one) => transpose(chord.root, one));
  return {
    degrees: read.map(({ degree }) => degree),
    covered: tones.filter(has),
    missing: tones.filter((tone) => !has(tone)),
    clashes,
    blue,
    colours,
    against,
    outsideKey,
    guideTones: guideTones.filter(has),
    guideToneCount: guideTones.length,
  };
}

const TONE_NAMES = ['root', 'ninth', 'third', 'fourth', 'fifth', 'sixth', 'seventh'] as const;

/** A chord tone by what it does: "third", whatever its size; "flat fifth" where that is the point. */
export function toneName(chord: Chord, note: Note): string {
  const interval = degreeOver(chord, note);
  const name = degreeName(interval);
  const plain = TONE_NAMES[Number(name.slice(-1)) - 1] ?? 'root';
  const size = halfSteps(interval);
  if (plain === 'fifth' && size !== 7) return size < 7 ? 'flat fifth' : 'sharp fifth';
  if (plain === 'ninth' && chord.quality.core.includes(interval)) return 'second';
  if (plain === 'sixth' && !chord.quality.core.includes(interval)) return 'thirteenth';
  if (plain === 'fourth' && !chord.quality.core.includes(interval)) return 'eleventh';
  return plain;
}

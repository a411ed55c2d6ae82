/** How notes read over a chord: as players name them there, not as some other root spells them. */
import { degree, degreeName, spokenDegree, spokenTension, tensionName } from '../notes/degrees';
import { at, modulo } from '../lists';
import {
  ENHARMONIC,
  halfSteps,
  type Interval,
  intervalBetween,
  type Note,
  pitchClass,
  spellNear,
  transpose,
} from '../notes/notes';
import type { Midi } from '../notes/pitch';
import type { Chord } from './chords';
import { sounds } from './qualities';

/** The degrees in use; anything else is a spelling of one of them. */
const IN_USE: ReadonlySet<Interval> = new Set(
  '1 b2 2 #2 b3 3 b4 4 #4 b5 5 #5 b6 6 b7 7'.split(' ').map(degree),
);
const BY_SIZE = '1 b2 2 b3 3 4 b5 5 b6 6 b7 7'.split(' ').map(degree);

/** A degree as it is spelled where that is in use, else as the usual one of its size: 7 for b1. */
export const usualDegree = (spelled: Interval): Interval =>
  IN_USE.has(spelled) ? spelled : (BY_SIZE[halfSteps(spelled)] ?? spelled);

const SHARP_NINTH = degree('#2');
const DIMINISHED_SEVENTH = degree('bb7');

const FLAT_NINTH_SIZE = 1;
const MINOR_THIRD_SIZE = 3;
const FLAT_THIRTEENTH_SIZE = 8;
const MAJOR_THIRD = degree('3');
const FLAT_FOURTH = degree('b4');
const FLAT_THIRTEENTH = degree('b6');

/**
 * Over a dominant the minor third is the sharp ninth where other altered tensions stand beside it,
 * in the chord or among the notes; alone it is the blue third.
 */
function readsSharpNinth({ root, quality }: Chord, notes: readonly Note[]): boolean {
  if (quality.family !== 'dominant' || !quality.degrees.includes(MAJOR_THIRD)) return false;
  const altered = (size: number) => size === FLAT_NINTH_SIZE || size === FLAT_THIRTEENTH_SIZE;
  return (
    quality.altered ||
    quality.degrees.some((tone) => altered(halfSteps(tone))) ||
    notes.some((note) => altered(halfSteps(intervalBetween(root, note))))
  );
}

/** Over a dominant the raised fifth is the flat thirteenth where the ninth is bent too. */
function readsFlatThirteenth({ root, quality }: Chord, notes: readonly Note[]): boolean {
  if (quality.family !== 'dominant') return false;
  return (
    quality.altered ||
    notes.some((note) => halfSteps(intervalBetween(root, note)) === FLAT_NINTH_SIZE)
  );
}

/** A note with the degree it is read by over a chord. */
interface NoteOver {
  readonly note: Note;
  readonly degree: Interval;
}

/**
 * How far the spelling of notes lies from the chord's: what is borrowed is named by its own root, F
 * minor rather than E sharp minor over F sharp, and is read there as if it were spelled by the chord.
 */
function spelledApart({ root, quality }: Chord, notes: readonly Note[]): number {
  const isUsed = (interval: Interval) => IN_USE.has(interval) || quality.degrees.includes(interval);
  const apart = (by: number) =>
    notes.filter((note) => !isUsed((intervalBetween(root, note) + by) as Interval)).length;
  if (apart(0) === 0) return 0;
  // Of two that are as near, the flatter: players count from b2 and b6.
  return [-2, -1, 0, 1, 2]
    .map((times) => times * ENHARMONIC)
    .reduce((best, by) => (apart(by) < apart(best) ? by : best));
}

/**
 * Each note with its degree over a chord. A chord tone reads as the chord's own, so that the flat
 * fourth of the altered scale is the third of its dominant; the rest as spelled. The notes are read
 * together: what stands beside a minor third says whether it is a sharp ninth.
 */
export function readOver(chord: Chord, notes: readonly Note[]): readonly NoteOver[] {
  const { root, quality } = chord;
  const sharpNinth = readsSharpNinth(chord, notes);
  const flatThirteenth = readsFlatThirteenth(chord, notes);
  const by = spelledApart(chord, notes);
  return notes.map((note) => {
    const interval = (intervalBetween(root, note) + by) as Interval;
    const size = halfSteps(interval);
    const tone = quality.degrees.find((own) => halfSteps(own) === size);
    if (tone !== undefined) return { note, degree: tone };
    if (size === MINOR_THIRD_SIZE && sharpNinth) return { note, degree: SHARP_NINTH };
    if (size === FLAT_THIRTEENTH_SIZE && flatThirteenth) return { note, degree: FLAT_THIRTEENTH };
    const dimSeventh = interval === DIMINISHED_SEVENTH && quality.family === 'diminished';
    return { note, degree: dimSeventh ? interval : usualDegree(interval) };
  });
}

/** How much a note says of its chord: it names it, belongs to it, or colours it. */
export type Weight = 'guide' | 'chord' | 'colour';

/**
 * The weight of a degree over a chord, whatever its spelling.
 *
 * @example weightOver(parseChord('C7'), degree('3')); // "guide"
 */
export function weightOver({ quality }: Chord, degree: Interval): Weight {
  const size = halfSteps(degree);
  if (quality.guideTones.some((tone) => halfSteps(tone) === size)) return 'guide';
  return sounds(quality, degree) ? 'chord' : 'colour';
}

/**
 * What a note by itself is over a chord. A flat fourth is one only beside a scale's other notes: C
 * passed through over G sharp minor is its major third.
 *
 * @example degreeName(degreeOver(parseChord('C7'), note('D#'))); // "#2"
 */
export function degreeOver(chord: Chord, note: Note): Interval {
  const read = at(readOver(chord, [note]), 0).degree;
  return read === FLAT_FOURTH && chord.quality.family !== 'diminished' ? MAJOR_THIRD : read;
}

/**
 * How a pitch is spelled over a chord: as its tones and tensions are, else near its root.
 *
 * @example noteName(spellOver(parseChord('Abm7'), 71)); // "Cb"
 */
export function spellOver(chord: Chord, midi: Midi): Note {
  const pitch = modulo(midi, 12);
  const own = [...chord.quality.degrees, ...chord.quality.tensions].find(
    (degree) => pitchClass(transpose(chord.root, degree)) === pitch,
  );
  return own === undefined
    ? spellNear(pitch, (chord.root + 1) as Note)
    : transpose(chord.root, own);
}

/**
 * One spelling for each pitch class over a chord: its own tones as it spells them, then the notes
 * played over it as far as they are spelled in a degree in use, else by the usual degree.
 */
export function spellingsOver(chord: Chord, notes: readonly Note[]): ReadonlyMap<number, Note> {
  const { root, quality } = chord;
  const spelled = new Map<number, Note>();
  const learn = (note: Note) => {
    if (!spelled.has(pitchClass(note))) spelled.set(pitchClass(note), note);
  };
  for (const tone of quality.degrees) learn(transpose(root, tone));
  const by = spelledApart(chord, notes);
  for (const note of notes) {
    learn(transpose(root, usualDegree((intervalBetween(root, note) + by) as Interval)));
  }
  return spelled;
}

const TENSIONS: ReadonlySet<Interval> = new Set('b2 2 #2 4 #4 b6 6'.split(' ').map(degree));

const isTension = ({ quality }: Chord, interval: Interval): boolean =>
  TENSIONS.has(interval) && !quality.core.includes(interval);

/** A degree as a tension where it is one: `b9`, `11`, `13`; what the chord is built of stays simple. */
export const tensionOver = (chord: Chord, interval: Interval): string =>
  isTension(chord, interval) ? tensionName(interval) : degreeName(interval);

/**
 * The same as a player says it: "flat third", "sharp eleventh".
 *
 * @example spokenOver(parseChord('G7'), degree('2')); // "ninth"
 */
export const spokenOver = (chord: Chord, interval: Interval): string =>
  isTension(chord, interval) ? spokenTension(interval) : spokenDegree(interval);

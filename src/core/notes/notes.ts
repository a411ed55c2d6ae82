/**
 * Spelled notes and intervals, both as positions on the line of fifths:
 *
 *     … Cb Gb Db Ab Eb Bb  F  C  G  D  A  E  B  F# C# G# …
 *     … -7 -6 -5 -4 -3 -2 -1  0  1  2  3  4  5  6  7  8 …
 *
 * One integer holds letter and accidental together, and transposing is addition, so spelling is
 * right by construction: C plus a minor third (-3) is E flat, never D sharp. After Temperley,
 * "The Line of Fifths", Music Analysis 19 (2000).
 */
import { at, modulo } from '../lists';

declare const noteBrand: unique symbol;
declare const intervalBrand: unique symbol;

/** A spelled note without octave. */
export type Note = number & { readonly [noteBrand]: true };

/** A spelled interval without octave; also the degree a note makes above a root. */
export type Interval = number & { readonly [intervalBrand]: true };

/** Pitch class 0–11, C = 0. */
type PitchClass = number;

const LETTERS_BY_FIFTHS = 'FCGDAEB';
const LETTERS_BY_STEP = 'CDEFGAB';
/** Scale step (0 = C or unison) of each of the seven natural positions F C G D A E B. */
const STEPS_BY_FIFTHS = [3, 0, 4, 1, 5, 2, 6] as const;

const naturalIndex = (fifths: number) => modulo(fifths + 1, 7);

/**
 * Sharps (positive) or flats (negative) of a note; raised or lowered half steps of an interval.
 *
 * @example alteration(note('Bb')); // -1
 */
export const alteration = (fifths: Note | Interval): number => Math.floor((fifths + 1) / 7);

/**
 * 0–6: the letter of a note counted from C, or the degree of an interval counted from the unison.
 *
 * @example step(note('E')); // 2
 */
export const step = (fifths: Note | Interval): number => at(STEPS_BY_FIFTHS, naturalIndex(fifths));

/**
 * Pitch class of a note, C = 0.
 *
 * @example pitchClass(note('Bb')); // 10
 */
export const pitchClass = (note: Note): PitchClass => modulo(note * 7, 12);

/**
 * Size of an interval in half steps, 0–11.
 *
 * @example halfSteps(degree('b3')); // 3
 */
export const halfSteps = (interval: Interval): number => modulo(interval * 7, 12);

/**
 * The note at an interval above `note`.
 *
 * @example noteName(transpose(note('D'), degree('b3'))); // "F"
 */
export const transpose = (note: Note, interval: Interval): Note => (note + interval) as Note;

/**
 * The interval from `from` up to `to`.
 *
 * @example degreeName(intervalBetween(parseNote("C"), parseNote("G#"))); // "#5"
 */
export const intervalBetween = (from: Note, to: Note): Interval => (to - from) as Interval;

/** One interval on top of another. */
export const addIntervals = (a: Interval, b: Interval): Interval => (a + b) as Interval;

/**
 * The same interval the other way.
 *
 * @example degreeName(invertInterval(degree('5'))); // "4"
 */
export const invertInterval = (interval: Interval): Interval => -interval as Interval;

function accidentals(count: number): string {
  if (count < 0) return 'b'.repeat(-count);
  return 'x'.repeat(Math.floor(count / 2)) + '#'.repeat(count % 2);
}

function buildNoteName(note: Note): string {
  return at(LETTERS_BY_FIFTHS, naturalIndex(note)) + accidentals(alteration(note));
}

// Names are looked up far more often than built: keep those within four accidentals.
const NAME_REACH = 30;
const NOTE_NAMES = Array.from({ length: 2 * NAME_REACH + 1 }, (_, index) =>
  buildNoteName((index - NAME_REACH) as Note),
);

/**
 * ASCII name: `F#`, `Bb`, `Fx`, `Abb`.
 *
 * @example noteName(parseNote("F##")); // "Fx"
 */
export const noteName = (note: Note): string =>
  NOTE_NAMES[note + NAME_REACH] ?? buildNoteName(note);

const NOTE_PATTERN = /^([A-G])(bb|##|[#b♯♭x𝄪𝄫])?$/u;
const ACCIDENTALS: Readonly<Record<string, number>> = {
  '': 0,
  '#': 1,
  '♯': 1,
  '##': 2,
  x: 2,
  '𝄪': 2,
  b: -1,
  '♭': -1,
  bb: -2,
  '𝄫': -2,
};

/** Builds a note from a letter A–G and a count of sharps (positive) or flats (negative). */
export function noteFromLetter(letter: string, sharps: number): Note {
  return (LETTERS_BY_FIFTHS.indexOf(letter) - 1 + 7 * sharps) as Note;
}

/**
 * Reads `C`, `F#`, `B♭`, `Fx`, `Abb`; null when the text is not a note.
 *
 * @example
 * noteName(parseNote("B♭")); // "Bb"
 * parseNote("H"); // null
 */
export function parseNote(text: string): Note | null {
  const match = NOTE_PATTERN.exec(text);
  if (!match) return null;
  return noteFromLetter(match[1] ?? '', ACCIDENTALS[match[2] ?? ''] ?? 0);
}

/**
 * Like {@link parseNote} for text the program itself wrote; throws on anything else.
 *
 * @example noteName(note('Eb')); // "Eb"
 */
export function note(text: string): Note {
  const parsed = parseNote(text);
  if (parsed === null) throw new RangeError(`"${text}" is not a note.`);
  return parsed;
}

/** From a note to the one that sounds the same, C to B sharp. */
export const ENHARMONIC = 12;

/** The same pitch class with at most one accidental, unchanged when it already is so. */
export function simplify(note: Note): Note {
  if (Math.abs(alteration(note)) <= 1) return note;
  return (note + (note > 0 ? -ENHARMONIC : ENHARMONIC)) as Note;
}

/** The names nobody calls a root by: F flat, C flat, E sharp, B sharp. */
const UNUSUAL: ReadonlySet<Note> = new Set([-8, -7, 11, 12] as Note[]);

/** A root by its simple name, E rather than F flat, unless that is how `spelled` is written. */
export function simpleRoot(note: Note, spelled: Note | null = null): Note {
  if (note === spelled) return note;
  const simple = simplify(note);
  return (UNUSUAL.has(simple) ? simple + (simple > 0 ? -ENHARMONIC : ENHARMONIC) : simple) as Note;
}

/**
 * The spelling of a pitch class that lies nearest to `centre` on the line of fifths.
 *
 * @example noteName(spellNear(1, note('F'))); // "Db"
 */
export function spellNear(target: PitchClass, centre: Note): Note {
  const shortest = modulo(target * 7 - centre + 6, 12) - 6;
  return (centre + shortest) as Note;
}

const TRITONE = 6;

/** A note as it is from six fifths below `centre` to `above` over it, else as it is spelled nearest there. */
export const keptNear = (note: Note, centre: Note, above: number = TRITONE): Note =>
  note - centre >= -TRITONE && note - centre <= above ? note : spellNear(pitchClass(note), centre);

/**
 * Letter of a note as `C`–`B`.
 *
 * @example letter(note('G#')); // "G"
 */
export const letter = (note: Note): string => at(LETTERS_BY_STEP, step(note));

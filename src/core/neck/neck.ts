/** The neck: strings, frets, and the pitch at every place. */
import { at, modulo, range } from '../lists';
import { type Note, parseNote, pitchClass } from '../notes/notes';
import { type Midi, parsePitch } from '../notes/pitch';

/** Open strings as MIDI numbers, lowest string first; frets 1–`frets`; capo 0 for none. */
export interface Neck {
  readonly tuning: readonly Midi[];
  readonly frets: number;
  readonly capo: number;
}

/** A place on the neck. Strings are numbered from 1, the highest; fret 0 is the open string. */
export interface Place {
  readonly string: number;
  readonly fret: number;
}

/** A region of the neck, from one fret to another, both included. */
export interface Zone {
  readonly low: number;
  readonly high: number;
}

/** The least and the most strings and frets of a neck. */
export const NECK_LIMITS = {
  strings: { low: 4, high: 8 },
  frets: { low: 12, high: 27 },
} as const;

/** Open strings of a guitar, lowest first. */
export const STANDARD_TUNING = ['E2', 'A2', 'D3', 'G3', 'B3', 'E4'] as const;

/** Around which pitch the lowest string lies where a tuning names no octaves: E2, or E1 of a bass. */
const LOWEST = { guitar: 40, bass: 28, extended: 35 } as const;

/** The pitch of a note name at or above a floor. */
function pitchAbove(name: string, floor: Midi): Midi | null {
  const note = parseNote(name);
  return note === null ? null : floor + modulo(pitchClass(note) - floor, 12);
}

/**
 * Reads a tuning given lowest string first, `E2 A2 …`, or by names alone as players write them,
 * `D A D G B E`, in the usual octaves; null when a name is no pitch.
 */
export function parseTuning(names: readonly string[]): readonly Midi[] | null {
  const tuning = names.map(parsePitch);
  if (tuning.every((midi) => midi !== null)) return tuning;
  const { guitar, bass, extended } = LOWEST;
  const around = names.length > 6 ? extended : names.length < 6 ? bass : guitar;
  const pitches: Midi[] = [];
  for (const name of names) {
    const last = pitches.at(-1);
    // The lowest string lies within a fourth below the usual one, every next one above the last.
    const pitch = pitchAbove(name, last === undefined ? around - 7 : last + 1);
    if (pitch === null) return null;
    pitches.push(pitch);
  }
  return pitches;
}

/** A guitar of six strings in standard tuning. */
export const STANDARD_NECK: Neck = {
  tuning: parseTuning(STANDARD_TUNING) ?? [],
  frets: 22,
  capo: 0,
};

/**
 * How many strings a neck has.
 *
 * @example stringCount(STANDARD_NECK); // 6
 */
export const stringCount = (neck: Neck): number => neck.tuning.length;

/**
 * Open pitch of a string counted from 1, the highest.
 *
 * @example openPitch(STANDARD_NECK, 6); // 40
 */
export const openPitch = (neck: Neck, string: number): Midi =>
  at(neck.tuning, neck.tuning.length - string);

/**
 * The pitch at a place, in MIDI numbers.
 *
 * @example pitchAt(STANDARD_NECK, { string: 6, fret: 3 }); // 43
 */
export const pitchAt = (neck: Neck, place: Place): Midi =>
  openPitch(neck, place.string) + place.fret;

/**
 * The fret at which a string gives a pitch; null when it lies off the string or behind the capo.
 *
 * @example
 * fretFor(STANDARD_NECK, 1, 67); // 3
 * fretFor(STANDARD_NECK, 1, 40); // null
 */
export function fretFor(neck: Neck, string: number, midi: Midi): number | null {
  const fret = midi - openPitch(neck, string);
  return fret >= neck.capo && fret <= neck.frets ? fret : null;
}

/**
 * Every place that gives a pitch, from the highest string down.
 *
 * @example placesOfPitch(STANDARD_NECK, 64).length; // 5
 */
export const placesOfPitch = (neck: Neck, midi: Midi): readonly Place[] =>
  range(1, stringCount(neck) + 1).flatMap((string) => {
    const fret = fretFor(neck, string, midi);
    return fret === null ? [] : [{ string, fret }];
  });

/** Whether two places are one. */
export const samePlace = (one: Place, other: Place): boolean =>
  one.string === other.string && one.fret === other.fret;

/** Whether two zones are one: the same frets. */
export const sameZone = (one: Zone, other: Zone): boolean =>
  one.low === other.low && one.high === other.high;

/** A place as a word: equal for the same place alone. */
export const placeId = ({ string, fret }: Place): string => `${string}-${fret}`;

/** A place in words: "string 3, fret 5", "string 3, open". */
export const placeWords = ({ string, fret }: Place): string =>
  `string ${string}, ${fret === 0 ? 'open' : `fret ${fret}`}`;

/** Places of a list, each once. */
export const uniquePlaces = <P extends Place>(places: readonly P[]): readonly P[] => [
  ...new Map(places.map((place) => [placeId(place), place])).values(),
];

/** The whole neck as a zone. */
export const wholeNeck = (neck: Neck): Zone => ({ low: neck.capo, high: neck.frets });

/**
 * Whether a fret lies in a zone.
 *
 * @example inZone({ low: 5, high: 8 }, 9); // false
 */
export const inZone = (zone: Zone, fret: number): boolean => zone.low <= fret && fret <= zone.high;

/** A zone slid by some frets, kept on the neck at its width. */
export function slideZone(neck: Neck, zone: Zone, frets: number): Zone {
  const width = zone.high - zone.low;
  const low = Math.max(neck.capo, Math.min(neck.frets - width, zone.low + frets));
  return { low, high: low + width };
}

/** A zone from two frets in any order, at least two frets wide and on the neck. */
export function fitZone(neck: Neck, a: number, b: number): Zone {
  const low = Math.max(neck.capo, Math.min(a, b, neck.frets - 1));
  return { low, high: Math.min(neck.frets, Math.max(a, b, low + 1)) };
}

/**
 * Every place where one of the notes lies, string 6 to 1, low fret to high.
 *
 * @example placesOf(STANDARD_NECK, [parseNote("A")], { low: 0, high: 4 }).length; // 2
 */
export function placesOf(
  neck: Neck,
  notes: readonly Note[],
  zone: Zone = wholeNeck(neck),
): readonly (Place & { readonly note: Note })[] {
  const byPitch = new Map(notes.map((note) => [pitchClass(note), note]));
  return range(0, stringCount(neck)).flatMap((index) => {
    const string = stringCount(neck) - index;
    return range(Math.max(zone.low, neck.capo), Math.min(zone.high, neck.frets) + 1).flatMap(
      (fret) => {
        const note = byPitch.get(pitchAt(neck, { string, fret }) % 12);
        return note === undefined ? [] : [{ string, fret, note }];
      },
    );
  });
}

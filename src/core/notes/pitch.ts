/** Sounding pitches as MIDI numbers: 60 = C4, 40 = E2, the low string of a guitar. */
import { alteration, noteName, type Note, parseNote, pitchClass, step } from './notes';

/** A pitch as MIDI counts it: half steps, 60 the C in the middle. */
export type Midi = number;
export type Hertz = number;

/**
 * Frequency of a pitch in equal temperament, A4 at 440 Hz; cents stand after the point.
 *
 * @example hertzOf(57); // 220
 */
export const hertzOf = (pitch: Midi): Hertz => 440 * 2 ** ((pitch - 69) / 12);

/**
 * The pitch of a frequency, its cents after the point.
 *
 * @example pitchOfHertz(440); // 69
 */
export const pitchOfHertz = (hertz: Hertz): Midi => 69 + 12 * Math.log2(hertz / 440);

/**
 * Octave in scientific pitch notation of a spelled note at a MIDI number; B# and Cb keep their letter's.
 *
 * @example octaveOf(note('Cb'), 59); // 4
 */
export function octaveOf(note: Note, midi: Midi): number {
  return Math.floor((midi - alteration(note)) / 12) - 1;
}

/**
 * Scientific name: `Eb3`.
 *
 * @example pitchName(note('Eb'), 63); // "Eb4"
 */
export const pitchName = (note: Note, midi: Midi): string =>
  `${noteName(note)}${octaveOf(note, midi)}`;

const NATURAL_PITCH = [0, 2, 4, 5, 7, 9, 11] as const;

/**
 * Reads `E2`, `F#3`, `B♭1`; null for anything else.
 *
 * @example parsePitch('E2'); // 40
 */
export function parsePitch(text: string): Midi | null {
  const match = /^(\D+)(-?\d)$/u.exec(text);
  const note = parseNote(match?.[1] ?? '');
  if (note === null) return null;
  const natural = NATURAL_PITCH[step(note)] ?? 0;
  return 12 * (Number(match?.[2]) + 1) + natural + alteration(note);
}

/**
 * The lowest pitch of a note's class that is not below `floor`.
 *
 * @example pitchAtOrAbove(note('G'), 60); // 67
 */
export function pitchAtOrAbove(note: Note, floor: Midi): Midi {
  return floor + ((pitchClass(note) - (floor % 12) + 12) % 12);
}

/**
 * Notes as pitches from a floor up, each above the one before.
 *
 * @example climbing(['C', 'G', 'E'].map(note), 60); // [60,67,76]
 */
export function climbing(notes: readonly Note[], floor: Midi): readonly Midi[] {
  let least = floor;
  return notes.map((note) => {
    const midi = pitchAtOrAbove(note, least);
    least = midi + 1;
    return midi;
  });
}

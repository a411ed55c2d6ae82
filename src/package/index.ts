/**
 * Corvel's core for other programs: reading a chart, its harmony, what may be played over each chord, where it lies
 * on the neck, lines and exercises as MIDI, and judging what was played. Pure functions of plain values: no clock,
 * no network, no dependency. Notes and intervals are numbers on the line of fifths; `noteName` and `degreeName` say
 * them. Time is counted from 0 in whole ticks, {@link BEAT} of them to a beat of the chart's time signature
 * ({@link inBeats} says how many beats that is); MIDI 60 is the C in the middle, string 1 the highest.
 */
import { type Chart, readChart } from '$core/chart/form';
import { type Chord, chordName, chordNotes } from '$core/chords/chords';
import { parseChord } from '$core/chords/symbols';
import { type Exercise, makeExercise } from '$core/exercises/exercises';
import type { ExerciseRequest } from '$core/exercises/request';
import { EXERCISES, type ExerciseKind } from '$core/exercises/kinds';
import { writeMidi } from '$core/formats/passage/midi/write';
import { readHarmony } from '$core/harmony/reading';
import { lensContexts, type Option, optionsFor } from '$core/lenses/options';
import { propose, proposeIntents, STYLES, type Style } from '$core/lenses/styles';
import { type HeardAt, type Landings, landingsOf } from '$core/listening/landings';
import { makeNeck } from '$core/neck/instruments';
import { type Neck, pitchAt, placesOf, STANDARD_NECK, type Zone } from '$core/neck/neck';
import { zoneSvg } from '$core/neck/svg';
import { zonesOf } from '$core/neck/zones';
import { degreeName } from '$core/notes/degrees';
import { intervalBetween, type Note, noteName, parseNote } from '$core/notes/notes';
import type { Passage } from '$core/phrases/passage';
import { BEAT, inBeats } from '$core/time/units';

export type {
  Chart,
  Chord,
  Exercise,
  ExerciseKind,
  HeardAt,
  Landings,
  Neck,
  Note,
  Option,
  Passage,
};
export type { Style, Zone };
export {
  BEAT,
  chordName,
  chordNotes,
  degreeName,
  EXERCISES,
  inBeats,
  intervalBetween,
  makeNeck,
  noteName,
  parseChord,
  parseNote,
  pitchAt,
  placesOf,
  STANDARD_NECK,
  STYLES,
  zoneSvg,
};

/** What is wrong with a text or a request. */
export class CorvelError extends Error {
  override name = 'CorvelError';
  /** Where in a chart's text: its line and column from 1; null where it is not of a text. */
  readonly place: { readonly line: number; readonly column: number } | null;
  constructor(message: string, place: CorvelError['place'] = null) {
    super(message);
    this.place = place;
  }
}

/**
 * Reads a chart: headers, sections, bars, repeats and endings; its chords as they are played.
 *
 * @throws CorvelError with line and column where the text cannot be read.
 * @example
 * const chart = read('title: Kettle Street\ntempo: 120\n| Dm7 | G7 | Cmaj7 | % |');
 * chart.chords.map(({ chord }) => chord.symbol); // ["Dm7","G7","Cmaj7","Cmaj7"]
 * inBeats(chart.chords[1].beat); // 4
 */
export function read(text: string): Chart {
  const result = readChart(text);
  if (result.ok) return result.chart;
  const [problem] = result.problems;
  throw new CorvelError(
    problem?.message ?? 'This is no chart.',
    problem ? { line: problem.line, column: problem.column } : null,
  );
}

/** What is heard in a chart: its key, and for each chord its numeral and role. */
export interface Heard {
  /** `C major`; null where no single key holds. */
  readonly key: string | null;
  readonly numerals: readonly (string | null)[];
}

/**
 * Names the key and the numeral of each chord.
 *
 * @example
 * harmony(read('| Dm7 | G7 | Cmaj7 | % |')).key; // "C major"
 * harmony(read('| Dm7 | G7 | Cmaj7 | % |')).numerals[1]; // "V7"
 */
export function harmony(chart: Chart): Heard {
  const reading = readHarmony(chart);
  const { key } = reading.key;
  return {
    key: key === null ? null : `${noteName(key.tonic)} ${key.mode}`,
    numerals: chart.chords.map((_, index) => reading.chords[index]?.numeral ?? null),
  };
}

/**
 * What could be played over a chord, best first, each with its notes and what it costs.
 *
 * @param index of the chord as it is played, from 0
 * @throws CorvelError where the chart has no such chord.
 * @example
 * const [first] = options(read('| Dm7 | G7 | Cmaj7 | % |'), 1);
 * first.material.notes.length > 3; // true
 * first.rank; // 1
 */
export function options(chart: Chart, index: number): readonly Option[] {
  const context = lensContexts(chart, readHarmony(chart))[index];
  if (!context) throw new CorvelError(`This chart has no chord ${index}.`);
  return optionsFor(context);
}

/**
 * The zones of a key on a neck, lowest first: four or five frets each.
 *
 * @example
 * zones('Eb').length; // 5
 * zones('C')[0]; // {"low":0,"high":3}
 */
export function zones(tonic: string, neck: Neck = STANDARD_NECK): readonly Zone[] {
  return zonesOf(neck, noteOf(tonic)).map(({ low, high }) => ({ low, high }));
}

/** A note by its name. @throws CorvelError where it is none. */
function noteOf(name: string): Note {
  const note = parseNote(name);
  if (note === null) throw new CorvelError(`“${name}” is no note: write it like Eb or F#.`);
  return note;
}

/** What an exercise is made of; whatever is left out is chosen for the chart. */
export interface ExerciseAsked {
  readonly kind: ExerciseKind;
  readonly zone?: Zone;
  readonly style?: Style;
  readonly subdivision?: ExerciseRequest['subdivision'];
  readonly neck?: Neck;
  readonly seed?: number;
  /** For the kind `own`: degrees as a player says them. */
  readonly pattern?: string;
}

/**
 * An exercise or a line over a chart, with its goal and its notes on strings and frets.
 *
 * @example
 * const made = exercise(read('key: C\n| Dm7 | G7 | Cmaj7 | % |'), { kind: 'own', pattern: '1 2 3 5', style: 'modes' });
 * made.passage.notes.slice(0, 4).map(({ note }) => noteName(note)); // ["D","E","F","A"]
 * made.warnings; // []
 */
export function exercise(chart: Chart, asked: ExerciseAsked): Exercise {
  const { kind, style = 'own-pentatonics', subdivision = 'eighths', seed = 1 } = asked;
  const { neck = STANDARD_NECK, pattern = null } = asked;
  const reading = readHarmony(chart);
  const { key } = reading.key;
  const tonic = key?.tonic ?? chart.chords[0]?.chord.root;
  if (tonic === undefined) throw new CorvelError('This chart has no chords.');
  const own = zonesOf(neck, tonic);
  const zone = asked.zone ?? own[0];
  if (!zone) throw new CorvelError('This neck has no zone of the key.');
  const choices = propose(chart, reading, style);
  return makeExercise({
    chart,
    key,
    kind,
    subdivision,
    neck,
    zone,
    zones: own,
    seed,
    pattern,
    materials: choices.map(({ material }) => material),
    intents: proposeIntents(chart, reading, style),
    prefer: ['3', '7'],
    pins: {},
    extent: 'whole',
    from: 0,
    strings: [1, 2, 3],
    group: 4,
  });
}

/**
 * A passage as a Standard MIDI File: its bytes.
 *
 * @example
 * const bytes = midi(exercise(read('| C7 | F7 |'), { kind: 'line' }).passage);
 * String.fromCharCode(...bytes.slice(0, 4)); // "MThd"
 */
export const midi = (passage: Passage): Uint8Array => writeMidi(passage).content;

/**
 * Holds what was played against the targets that were asked for: each landed, near it, or missed, in words.
 *
 * @param targets by the index of their chord, as MIDI numbers
 * @param heard notes in time of the chart, in ticks: {@link BEAT} of them are one beat
 * @example
 * const chart = read('tempo: 100\n| Dm7 | G7 |');
 * const heard = [{ beat: 4 * BEAT, beats: 2 * BEAT, midi: 59, cents: 0 }];
 * judge(chart, [{ index: 1, midi: 59 }], heard).landed; // 1
 * judge(chart, [{ index: 1, midi: 59 }], []).landings[0].verdict; // "missed"
 */
export const judge = (
  chart: Chart,
  targets: readonly { readonly index: number; readonly midi: number }[],
  heard: readonly HeardAt[],
): Landings => landingsOf(chart, targets, heard);

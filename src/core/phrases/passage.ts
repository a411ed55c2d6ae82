/**
 * Played notes: the one value that exercises, routes, lines, licks and recordings share. Times are
 * in {@link Beats} of the first time signature, counted from the first full bar; a pick-up lies before 0.
 * Strings are numbered from 1, the highest.
 */
import type { Chart, PlayedChord } from '../chart/form';
import type { Key } from '../keys/keys';
import type { Neck, Place } from '../neck/neck';
import type { Note } from '../notes/notes';
import { type Feel, readFeel } from '../time/feel';
import { barOf, type MetreChange, type TimeSignature } from '../time/metre';
import type { Beats, BeatsPerMinute } from '../time/units';
import type { Technique } from './techniques';

/** What a note is for in its line. */
type NotePart = 'target' | 'approach' | 'fill';

/** A note of a passage: where and when it is played, and what it is over its chord. */
export interface PlayedNote extends Place {
  readonly beat: Beats;
  /** How long it sounds. */
  readonly beats: Beats;
  readonly note: Note;
  /** Index of the chord it is played over; null where none sounds. */
  readonly chord: number | null;
  readonly part: NotePart;
  /** One of each kind at the most. */
  readonly techniques: readonly Technique[];
}

/** Notes in order of time with what is needed to write them down and to play them. */
export interface Passage {
  readonly title: string;
  /** Null where no single key holds. */
  readonly key: Key | null;
  readonly time: TimeSignature;
  /** Other time signatures, from their beats on. */
  readonly metreChanges: readonly MetreChange[];
  /** How much sounds before the first full bar. */
  readonly pickUp: Beats;
  /** Null where nothing is said of it. */
  readonly feel: Feel | null;
  /** Null where none is stated. */
  readonly tempo: BeatsPerMinute | null;
  /** Length from beat 0 on, whole bars. */
  readonly beats: Beats;
  readonly neck: Neck;
  /** Chord symbols over the notes, by beat. */
  readonly chords: readonly Pick<PlayedChord, 'chord' | 'beat' | 'beats'>[];
  readonly notes: readonly PlayedNote[];
}

/** What a passage is where nothing else is known of it. */
export const PLAIN_PASSAGE = {
  title: '',
  key: null,
  metreChanges: [],
  pickUp: 0,
  feel: null,
  tempo: null,
  chords: [],
} as const satisfies Partial<Passage>;

/** A note plainly struck. */
export const struck = (
  note: Omit<PlayedNote, 'part' | 'techniques'> & {
    readonly part?: NotePart;
    readonly techniques?: readonly Technique[];
  },
): PlayedNote => ({ part: 'fill', techniques: [], ...note });

/** The time signature, feel and tempo a chart gives a passage over it. */
const frameOf = ({ source }: Chart) => ({
  time: source.time,
  metreChanges: [],
  feel: readFeel(source.feel),
  tempo: source.tempo,
});

/** By time, and lower strings first. */
export const inTime = (notes: readonly PlayedNote[]): readonly PlayedNote[] =>
  notes.toSorted((a, b) => a.beat - b.beat || b.string - a.string);

/** The notes of a passage with the bars it fills, for a chart in a key. */
export function passageOf(
  chart: Chart,
  key: Key | null,
  neck: Neck,
  title: string,
  notes: readonly PlayedNote[],
): Passage {
  const barBeats = barOf(chart.source.time);
  const end = Math.max(0, ...notes.map(({ beat, beats }) => beat + beats));
  const begin = Math.min(0, ...notes.map(({ beat }) => beat));
  const whole = chart.bars.length * barBeats;
  return {
    ...frameOf(chart),
    title,
    key,
    pickUp: Math.max(0, -begin),
    beats: Math.max(whole, Math.ceil(end / barBeats) * barBeats),
    neck,
    chords: chart.chords,
    notes: inTime(notes),
  };
}

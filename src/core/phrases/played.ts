/**
 * Played notes: the one value that exercises, routes, phrases and recordings share. Times are in
 * beats of the chart's time signature, counted from 0; strings from 1, the highest.
 */
import type { Chart, PlayedChord } from '../chart/form';
import { type Chord } from '../chords/chords';
import { degreesOver } from '../chords/over';
import type { TimeSignature } from '../chart/syntax';
import type { Neck, Place } from '../neck/neck';
import { type Interval, type Note, pitchClass, spellNear, transpose } from '../notes/notes';
import type { Midi } from '../notes/pitch';

/** How a note is played besides being struck. A bend of 1 to 3 half steps may be let down again. */
export type Articulation =
  | { readonly kind: 'bend'; readonly halfSteps: 1 | 2 | 3; readonly release: boolean }
  | { readonly kind: 'slide' | 'hammer-on' | 'pull-off' | 'vibrato' };

/** What a note is for in its line. */
export type NotePart = 'target' | 'approach' | 'fill';

export interface PlayedNote extends Place {
  readonly beat: number;
  /** How long it sounds. */
  readonly beats: number;
  readonly note: Note;
  /** Index of the chord it is played over; null where none sounds. */
  readonly chord: number | null;
  readonly part: NotePart;
  readonly articulation: Articulation | null;
}

/** Notes in order of time with what is needed to write them down. */
export interface Passage {
  readonly title: string;
  readonly time: TimeSignature;
  /** Beats a minute; null where the chart states none. */
  readonly tempo: number | null;
  /** Length in beats, whole bars. */
  readonly beats: number;
  readonly neck: Neck;
  /** Chord symbols over the notes, by beat. */
  readonly chords: readonly Pick<PlayedChord, 'chord' | 'beat' | 'beats'>[];
  readonly notes: readonly PlayedNote[];
}

/** A note plainly struck. */
export const struck = (
  note: Omit<PlayedNote, 'part' | 'articulation'> & { readonly part?: NotePart },
): PlayedNote => ({ part: 'fill', articulation: null, ...note });

/** What a played note is over its chord. */
export const degreeOf = (chord: Chord, note: Note): Interval =>
  degreesOver(chord, [note])[0] ?? (0 as Interval);

/** How a pitch is spelled over a chord: as its tones and tensions are, else near its root. */
export function spellOver(chord: Chord, midi: Midi): Note {
  const pitch = ((midi % 12) + 12) % 12;
  const own = [...chord.quality.degrees, ...chord.quality.tensions].find(
    (degree) => pitchClass(transpose(chord.root, degree)) === pitch,
  );
  return own === undefined
    ? spellNear(pitch, (chord.root + 1) as Note)
    : transpose(chord.root, own);
}

/** The notes of a passage with the bars it fills, for a chart. */
export function passageOf(
  chart: Chart,
  neck: Neck,
  title: string,
  notes: readonly PlayedNote[],
): Passage {
  const barBeats = chart.source.time.beats;
  const end = Math.max(0, ...notes.map(({ beat, beats }) => beat + beats));
  const whole = chart.bars.length * barBeats;
  return {
    title,
    time: chart.source.time,
    tempo: chart.source.tempo,
    beats: Math.max(whole, Math.ceil((end - 1e-6) / barBeats) * barBeats),
    neck,
    chords: chart.chords,
    notes: [...notes].sort((a, b) => a.beat - b.beat || b.string - a.string),
  };
}

/** A lick of the lick book: played notes over a small chart, with what it is known by. */
import type { Chart } from '../chart/form';
import { chordName } from '../chords/chords';
import { type Key, writeKey } from '../keys/keys';
import { at, range } from '../lists';
import { type Neck, pitchAt } from '../neck/neck';
import { simplestPitch } from '../notes/spelling';
import { type Passage, passageOf, type PlayedNote, struck } from '../phrases/passage';
import { chordIndexAt, type LickNote, speller } from './sounding';

export interface Lick {
  readonly title: string;
  readonly tags: readonly string[];
  /** Where it comes from: `mine`, `a take`, `Corvel`. */
  readonly source: string;
  /** Its chords as chart text. */
  readonly chart: string;
  readonly notes: readonly LickNote[];
}

export const LICK_LIMITS = { title: 120, tags: 12, tag: 40, chart: 4_000, notes: 512 } as const;

/** The notes of a lick spelled and read over a chart's chords. */
export function overChart(
  chart: Chart,
  key: Key | null,
  neck: Neck,
  notes: readonly LickNote[],
): readonly PlayedNote[] {
  return notes.map((note) => {
    const chord = chordIndexAt(chart, note.beat);
    const midi = pitchAt(neck, note);
    const spelled =
      chord === null ? simplestPitch(midi) : speller(at(chart.chords, chord).chord, key)(midi);
    return struck({ ...note, note: spelled, chord });
  });
}

/** A lick as a passage: to be drawn, played and written to files. */
export const lickPassage = (
  { title, notes }: Pick<Lick, 'title' | 'notes'>,
  chart: Chart,
  key: Key | null,
  neck: Neck,
): Passage => passageOf(chart, key, neck, title, overChart(chart, key, neck, notes));

/** The bars of a passage as chart text: its chords by the beat, silence where it has none. */
function chartOfPassage({ key, time, tempo, beats, chords }: Passage): string {
  const heads = [
    ...(key ? [`key: ${writeKey(key)}`] : []),
    `time: ${time.beats}/${time.unit}`,
    ...(tempo === null ? [] : [`tempo: ${Math.round(tempo)}`]),
  ];
  const bars = range(0, Math.max(1, Math.ceil(beats / time.beats - 1e-6))).map((bar) => {
    const slots = range(0, time.beats).map((slot) => {
      const beat = bar * time.beats + slot;
      const begins = chords.find((one) => Math.round(one.beat) === beat);
      if (begins) return chordName(begins.chord);
      const sounding = chords.some(
        (one) => one.beat < beat + 1e-6 && beat < one.beat + one.beats - 1e-6,
      );
      if (!sounding) return 'N.C.';
      const here = chords.findLast((one) => one.beat < beat + 1e-6);
      return slot === 0 && here ? chordName(here.chord) : '/';
    });
    const whole = slots
      .slice(1)
      .every((one) => one === '/' || (one === 'N.C.' && slots[0] === one));
    return whole ? (slots[0] ?? 'N.C.') : slots.join(' ');
  });
  return `${heads.join('\n')}\n| ${bars.join(' | ')} |`;
}

/** A passage as a lick, under its own title. */
export const lickOfPassage = (passage: Passage, source: string): Lick => ({
  title: passage.title || 'Untitled lick',
  tags: [],
  source,
  chart: chartOfPassage(passage),
  notes: passage.notes.map(({ beat, beats, string, fret, techniques }) => ({
    ...{ beat, beats, string, fret, techniques },
  })),
});

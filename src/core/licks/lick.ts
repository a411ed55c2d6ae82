/** A lick of the lick book: played notes over a small chart, with what it is known by. */
import type { Chart } from '../chart/form';
import { chordName } from '../chords/chords';
import { type Key, writeKey } from '../keys/keys';
import { at, range } from '../lists';
import { type Neck, pitchAt } from '../neck/neck';
import { simplestPitch } from '../notes/spelling';
import { type Passage, passageOf, type PlayedNote, struck } from '../phrases/passage';
import { chordIndexAt, type LickNote, speller } from './sounding';
import type { Beats } from '../time/units';
import { shared } from '../time/shares';
import { barOf } from '../time/metre';
import { type KeptNote, notesToKeep } from './kept';
import { rememberBy } from '../cache';

/** A lick: its notes over its chords, as they are kept. */
export interface Lick {
  readonly title: string;
  readonly tags: readonly string[];
  /** Where it comes from: `mine`, `a take`, `Corvel`. */
  readonly source: string;
  /** Its chords as chart text. */
  readonly chart: string;
  readonly notes: readonly KeptNote[];
}

/** The most characters, tags and notes of a lick. */
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
  { title, notes }: { readonly title: string; readonly notes: readonly LickNote[] },
  chart: Chart,
  key: Key | null,
  neck: Neck,
): Passage => passageOf(chart, key, neck, title, overChart(chart, key, neck, notes));

/** Into how many a beat may be cut, so that every chord of a bar begins on a share. */
const CUTS = range(1, 13);

/** Where each of so many equal shares of a bar begins. */
const startsOf = (bar: Beats, shares: number): readonly Beats[] =>
  shared(bar, Array<number>(shares).fill(1)).map(({ begins }) => begins);

/** The bars of a passage as chart text: its chords where they begin, silence where it has none. */
function chartOfPassage({ key, time, tempo, beats, chords }: Passage): string {
  const heads = [
    ...(key ? [`key: ${writeKey(key)}`] : []),
    `time: ${time.beats}/${time.unit}`,
    ...(tempo === null ? [] : [`tempo: ${Math.round(tempo)}`]),
  ];
  const end = chords.reduce((latest, one) => Math.max(latest, one.beat + one.beats), beats);
  const length = barOf(time);
  // By beats where they will do, else by as few shares of the bar as will.
  const startsIn = rememberBy(String, (shares: number) => startsOf(length, shares));
  const counts = [...CUTS.map((cut) => cut * time.beats), ...range(1, 12 * time.beats)];
  const bars = range(0, Math.max(1, Math.ceil(end / length))).map((bar) => {
    const [from, to] = [bar * length, (bar + 1) * length];
    const edges = chords
      .flatMap((one) => [one.beat, one.beat + one.beats])
      .filter((edge) => edge > from && edge < to);
    const count = counts.find((shares) =>
      edges.every((edge) => startsIn(shares).includes(edge - from)),
    );
    const starts = startsIn(count ?? 12 * time.beats);
    const half = length / starts.length / 2;
    const slots = starts.map((start, slot) => {
      const beat = from + start;
      const begins = chords.find((one) => one.beat >= beat - half && one.beat < beat + half);
      if (begins) return chordName(begins.chord);
      const sounding = chords.some((one) => one.beat <= beat && beat < one.beat + one.beats);
      if (!sounding) return 'N.C.';
      const here = chords.findLast((one) => one.beat <= beat);
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
  notes: notesToKeep(passage.notes),
});

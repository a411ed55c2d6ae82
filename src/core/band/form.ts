/** The form a band plays: a chart, or some bars of it that go round. */
import type { Chart } from '../chart/form';
import type { Chord } from '../chords/chords';
import type { Key } from '../keys/keys';
import { at } from '../lists';
import type { Note } from '../notes/notes';
import { DEFAULT_TIME, type TimeSignature } from '../time/metre';
import type { Beats } from '../time/units';

export interface FormBar {
  readonly beat: Beats;
  readonly beats: Beats;
  /** Sections in order of playing, from 0. */
  readonly section: number;
  /** Whether a section begins with it, and whether one ends. */
  readonly opens: boolean;
  readonly closes: boolean;
}

export interface FormChord {
  readonly chord: Chord;
  readonly beat: Beats;
  readonly beats: Beats;
  /** The key it stands in; null where none is stated. */
  readonly key: Key | null;
  /** What the player chose over it, from which tensions may come; null for what the symbol names. */
  readonly chosen: readonly Note[] | null;
}

/** Beats are counted from the first bar played. */
export interface BandForm {
  readonly time: TimeSignature;
  readonly beats: Beats;
  readonly bars: readonly FormBar[];
  readonly chords: readonly FormChord[];
}

export interface FormOptions {
  /** Bars as played, from 0 up to, not including, `to`; the whole form when left out. */
  readonly from?: number;
  readonly to?: number;
  /** The player's choice over each chord of the chart. */
  readonly chosen?: readonly (readonly Note[])[];
}

/**
 * Some bars of a chart as a form of their own. A chord that is held into them begins with them.
 *
 * @example bandForm(chart, { from: 4, to: 6 }).bars.length // 2
 */
export function bandForm(chart: Chart, options: FormOptions = {}): BandForm {
  const from = Math.max(0, Math.min(options.from ?? 0, chart.bars.length));
  const to = Math.max(from, Math.min(options.to ?? chart.bars.length, chart.bars.length));
  const played = chart.bars.slice(from, to);
  const start = played[0]?.beat ?? 0;
  const last = played.at(-1);
  const beats = last ? last.beat + last.beats - start : 0;
  const { sections, key } = chart.source;
  const section = (index: number) => {
    const bar = chart.bars[index];
    return bar ? `${bar.section} ${bar.pass}` : '';
  };
  let number = -1;
  const bars = played.map((bar, index): FormBar => {
    const here = section(from + index);
    const opens = index === 0 || section(from + index - 1) !== here;
    if (opens) number += 1;
    return {
      beat: bar.beat - start,
      beats: bar.beats,
      section: number,
      opens,
      closes: index === played.length - 1 || section(from + index + 1) !== here,
    };
  });
  const chords = chart.chords.flatMap((one): readonly FormChord[] => {
    const begins = Math.max(one.beat, start);
    const ends = Math.min(one.beat + one.beats, start + beats);
    if (ends - begins < 1e-6) return [];
    const bar = chart.bars[one.bar - 1];
    return [
      {
        chord: one.chord,
        beat: begins - start,
        beats: ends - begins,
        key: (bar && at(sections, bar.section).key) ?? key,
        chosen: options.chosen?.[one.index] ?? null,
      },
    ];
  });
  return { time: chart.source.time ?? DEFAULT_TIME, beats, bars, chords };
}

/** How a beat that was reckoned may miss the one it is, in beats. */
export const NEAR = 1e-6;

/** The index of the last of a list, in order of time, that begins by a beat; -1 before the first. */
export function lastBy(list: readonly { readonly beat: Beats }[], beat: Beats): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (at(list, middle).beat <= beat + NEAR) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** The chord that sounds at a beat; null where none does. */
export function chordAt({ chords }: BandForm, beat: Beats): FormChord | null {
  const last = chords[lastBy(chords, beat)];
  return last && beat < last.beat + last.beats - NEAR ? last : null;
}

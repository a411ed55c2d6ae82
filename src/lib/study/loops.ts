/** Loops that are chosen with one press: a chord, two, two bars, a section, the form. */
import type { Chart } from 'corvel-core';
import { type Extent, EXTENTS } from '$core/time/extent';
import type { Beats } from '$core/time/units';
import type { Loop } from './playing';

export const LOOP_SIZES = EXTENTS;
export type LoopSize = Extent;

export const LOOP_NAMES: Readonly<Record<LoopSize, string>> = {
  chord: 'Chord',
  'two chords': 'Two chords',
  'two bars': 'Two bars',
  section: 'Section',
  form: 'Form',
};

/** Whether some of a loop lies within a chart. */
export const fitsChart = ({ bars }: Pick<Chart, 'bars'>, { from, to }: Loop): boolean =>
  from < bars.length && to > from;

/** A loop within a chart; the whole form where it does not fit. */
export function fitLoop(chart: Chart, loop: Loop | null): Loop {
  const bars = chart.bars.length;
  if (!loop || !fitsChart(chart, loop)) return { from: 0, to: bars };
  return { from: loop.from, to: Math.min(loop.to, bars) };
}

/** Bars two chords span: those of the chord and of the change after it. */
function barsOfChords(chart: Chart, index: number, count: number): Loop {
  const { chords, bars } = chart;
  const first = chords[index];
  if (!first) return fitLoop(chart, null);
  const last = chords[Math.min(index + count - 1, chords.length - 1)] ?? first;
  const end = last.beat + last.beats;
  const to = bars.findIndex(({ beat, beats }) => beat + beats >= end);
  return { from: first.bar - 1, to: Math.max(first.bar, to + 1) };
}

/** Whether two loops are the same bars; null is the form. */
export const sameLoop = (one: Loop | null, other: Loop | null): boolean =>
  one?.from === other?.from && one?.to === other?.to;

/** The loop of a size around a chord; null for the form. */
export function loopAround(chart: Chart, index: number, size: LoopSize): Loop | null {
  const bar = (chart.chords[index]?.bar ?? 1) - 1;
  const last = chart.bars.length;
  switch (size) {
    case 'chord':
      return barsOfChords(chart, index, 1);
    case 'two chords':
      return barsOfChords(chart, index, 2);
    case 'two bars': {
      const from = Math.max(0, Math.min(bar, last - 2));
      return { from, to: Math.min(from + 2, last) };
    }
    case 'section': {
      const alike = (at: number) => {
        const [one, other] = [chart.bars[at], chart.bars[bar]];
        return one && other && one.section === other.section && one.pass === other.pass;
      };
      let [from, to] = [bar, bar + 1];
      while (from > 0 && alike(from - 1)) from -= 1;
      while (to < last && alike(to)) to += 1;
      return { from, to };
    }
    case 'form':
      return null;
  }
}

/** The size a loop has around a chord, where it is one of the usual ones. */
export const sizeOf = (chart: Chart, index: number, loop: Loop | null): LoopSize | null =>
  LOOP_SIZES.toReversed().find((size) => sameLoop(loopAround(chart, index, size), loop)) ?? null;

/** A loop a bar longer or shorter at its end; from the bar of a chord where there is none yet. */
export function resized(chart: Chart, index: number, loop: Loop | null, by: number): Loop {
  const bar = (chart.chords[index]?.bar ?? 1) - 1;
  const now = loop ?? { from: bar, to: by > 0 ? bar : bar + 2 };
  const to = Math.max(now.from + 1, Math.min(now.to + by, chart.bars.length));
  return { from: now.from, to };
}

/**
 * The loop of the same length so many lengths on, round the form; the last one of it is as long as the form has bars
 * left.
 */
export function loopAfter({ bars }: Pick<Chart, 'bars'>, loop: Loop, by: 1 | -1): Loop {
  const length = loop.to - loop.from;
  const on = loop.from + by * length;
  const from = on >= bars.length ? 0 : on < 0 ? Math.max(0, bars.length - length) : on;
  return { from, to: Math.min(bars.length, from + length) };
}

/** The beat of a loop that a chord stands on, of the form where there is none; null where it stands elsewhere. */
export function beatInLoop(chart: Chart, loop: Loop | null, index: number): Beats | null {
  const chord = chart.chords[index];
  if (!chord) return null;
  const bar = chord.bar - 1;
  if (loop !== null && (bar < loop.from || bar >= loop.to)) return null;
  return chord.beat - (chart.bars[loop?.from ?? 0]?.beat ?? 0);
}

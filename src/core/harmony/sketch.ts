/** The shape of a form, as much of it as tells one chart from another at a glance. */
import type { Chart } from '../chart/form';
import { writeKey } from '../keys/keys';
import { type KeyArea, readHarmony } from './reading';

/** A stretch of played bars, counted from 1. */
interface Bars {
  readonly from: number;
  readonly to: number;
}

/** A form as it is drawn small, in a list. */
export interface FormSketch {
  /** How many chords sound in each played bar; 0 where none does. */
  readonly bars: readonly number[];
  /** Sections as they are played, each time through; null where a section has no name. */
  readonly sections: readonly (Bars & { readonly name: string | null })[];
  readonly cadences: readonly Bars[];
  /** Keys, where the form has more than one; `heard` where the chart does not state it. */
  readonly areas: readonly (Bars & { readonly key: string; readonly heard: boolean })[];
  /** The first chords that differ, as they are written. */
  readonly first: readonly string[];
}

/** How many chords tell a chart apart. */
const FIRST = 6;

/** A form longer than this is drawn without its harmony, which would take long to read. */
const READABLE = 400;

/**
 * The shape of a chart's form.
 *
 * @example sketchOf(chart).first // ['Gm7', 'C7', 'Fmaj7']
 */
export function sketchOf(chart: Chart): FormSketch {
  const bars = chart.bars.map(() => 0);
  for (const { bar } of chart.chords) bars[bar - 1] = (bars[bar - 1] ?? 0) + 1;
  const sections: { name: string | null; from: number; to: number }[] = [];
  let before = chart.bars[0];
  for (const bar of chart.bars) {
    const last = sections.at(-1);
    if (last && before?.section === bar.section && before.pass === bar.pass) last.to = bar.number;
    else {
      const name = chart.source.sections[bar.section]?.name ?? null;
      sections.push({ name, from: bar.number, to: bar.number });
    }
    before = bar;
  }
  const reading = chart.chords.length > READABLE ? null : readHarmony(chart);
  const barOf = (index: number) => chart.chords[index]?.bar ?? 1;
  const areas = reading && reading.areas.length > 1 ? reading.areas : [];
  return {
    bars,
    sections,
    cadences: (reading?.cadences ?? []).map(({ from, to }) => ({
      from: barOf(from),
      to: barOf(to),
    })),
    areas: areas.map(({ from, to, key, heard }: KeyArea) => ({
      from,
      to,
      heard,
      key: writeKey(key),
    })),
    first: chart.chords
      .map(({ chord }) => chord.symbol)
      .filter((symbol, index, all) => symbol !== all[index - 1])
      .slice(0, FIRST),
  };
}

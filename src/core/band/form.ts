/** The form a band plays: a chart, or some bars of it that go round. */
import type { Chart } from '../chart/form';
import type { Chord } from '../chords/chords';
import type { Key } from '../keys/keys';
import { at } from '../lists';
import type { Note } from '../notes/notes';
import { DEFAULT_TIME, type TimeSignature } from '../time/metre';
import type { Beats } from '../time/units';

interface FormBar {
  readonly beat: Beats;
  readonly beats: Beats;
  /** Sections in order of playing, from 0. */
  readonly section: number;
  /** Whether a section begins with it, and whether one ends. */
  readonly opens: boolean;
  readonly closes: boolean;
}

/** A chord as the band sees it: where it begins in the form, and for how long. */
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

interface FormOptions {
  /** Bars as played, from 0 up to, not including, `to`; the whole form when left out. */
  readonly from?: number;
  readonly to?: number;
  /** The player's choice over each chord of the chart. */
  readonly chosen?: readonly (readonly Note[])[];
}

/** A whole chart as a form. */
function wholeForm({ source, bars, chords }: Chart, chosen: FormOptions['chosen']): BandForm {
  const named = bars.map(({ section, pass }) => `${section} ${pass}`);
  let number = -1;
  return {
    time: source.time ?? DEFAULT_TIME,
    beats: bars.reduce((sum, { beats }) => sum + beats, 0),
    bars: bars.map(({ beat, beats }, index): FormBar => {
      const opens = named[index] !== named[index - 1];
      if (opens) number += 1;
      return { beat, beats, section: number, opens, closes: named[index] !== named[index + 1] };
    }),
    chords: chords.map(({ chord, beat, beats, bar, index }): FormChord => {
      const own = bars[bar - 1];
      const key = (own && at(source.sections, own.section).key) ?? source.key;
      return { chord, beat, beats, key, chosen: chosen?.[index] ?? null };
    }),
  };
}

/** Some bars of a form as one of their own. A chord that is held into them begins with them. */
export function cutForm(form: BandForm, from: number, to: number): BandForm {
  const some = form.bars.slice(from, to);
  const [first, last] = [some[0], some.at(-1)];
  if (!first || !last) return { ...form, beats: 0, bars: [], chords: [] };
  const start = first.beat;
  const end = last.beat + last.beats;
  const bars = some.map((bar): FormBar => ({
    ...bar,
    beat: bar.beat - start,
    section: bar.section - first.section,
    opens: bar.opens || bar === first,
    closes: bar.closes || bar === last,
  }));
  const chords = form.chords.flatMap((one): readonly FormChord[] => {
    const begins = Math.max(one.beat, start);
    const beats = Math.min(one.beat + one.beats, end) - begins;
    return beats <= 0 ? [] : [{ ...one, beat: begins - start, beats }];
  });
  return { time: form.time, beats: end - start, bars, chords };
}

/**
 * Some bars of a chart as a form of their own.
 *
 * @example bandForm(read('| C | F | G |'), { from: 1, to: 3 }).bars.length; // 2
 */
export function bandForm(chart: Chart, options: FormOptions = {}): BandForm {
  const from = Math.max(0, Math.min(options.from ?? 0, chart.bars.length));
  const to = Math.max(from, Math.min(options.to ?? chart.bars.length, chart.bars.length));
  return cutForm(wholeForm(chart, options.chosen), from, to);
}

/**
 * The index of the last of a list, in order of time, that begins by a beat; -1 before the first.
 *
 * @example lastBy([{ beat: 0 }, { beat: BEAT }], BEAT); // 1
 */
export function lastBy(list: readonly { readonly beat: Beats }[], beat: Beats): number {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (at(list, middle).beat <= beat) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/**
 * The chord that sounds at a beat; null where none does.
 *
 * @example chordAt(bandForm(read('| C | F |')), 5 * BEAT).chord.symbol; // "F"
 */
export function chordAt({ chords }: BandForm, beat: Beats): FormChord | null {
  const last = chords[lastBy(chords, beat)];
  return last && beat < last.beat + last.beats ? last : null;
}

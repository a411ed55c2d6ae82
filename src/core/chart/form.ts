/** The form as played: repeats, endings and section counts written out. */
import { type Chord, sameChord } from '../chords/chords';
import { type Key, signatureTonic } from '../keys/keys';
import { at } from '../lists';
import type { Note } from '../notes/notes';
import { barOf } from '../time/metre';
import { shared } from '../time/shares';
import type { Beats } from '../time/units';
import { parseChart, type ParseOptions } from './parse';
import {
  type Bar,
  CHART_LIMITS,
  type ChartSource,
  type TextPlace,
  type Problem,
  type Section,
  type Slot,
} from './syntax';

/** A bar as it is played. `number` counts from 1. */
export interface PlayedBar {
  readonly number: number;
  /** Where it begins, counted from 0 within the chart, and how long it lasts. */
  readonly beat: Beats;
  readonly beats: Beats;
  /** Index of the section in the source, the time through it (from 1), and the bar's index in it. */
  readonly section: number;
  readonly pass: number;
  readonly sourceBar: number;
}

/** A chord as it is played. `bar` counts from 1, `beat` from 0 within the chart. */
export interface PlayedChord {
  readonly index: number;
  readonly chord: Chord;
  readonly bar: number;
  readonly beat: Beats;
  readonly beats: Beats;
  /** Where the text names it; for a repeated bar, the bar it repeats. */
  readonly place: TextPlace;
}

/** A chart ready to be read, drawn and played. */
export interface Chart {
  readonly source: ChartSource;
  readonly bars: readonly PlayedBar[];
  readonly chords: readonly PlayedChord[];
}

type ChartResult =
  | { readonly ok: true; readonly chart: Chart }
  /** What of the form could be read is kept, silent where it could not; null where that is nothing. */
  | { readonly ok: false; readonly problems: readonly Problem[]; readonly readable: Chart | null };

interface Visit {
  readonly bar: number;
  readonly pass: number;
}

/** How often a repeat that closes at `end` is played: by its count, or to reach its last ending. */
function passesOf(bars: readonly Bar[], start: number, end: number): number {
  let passes = at(bars, end).closesRepeat ?? 1;
  for (let index = start; index < bars.length; index++) {
    const bar = at(bars, index);
    if (index > end && bar.opensRepeat) break;
    passes = Math.max(passes, ...bar.endings);
  }
  return passes;
}

/** The next bar at or after `from` that begins the ending of this pass. */
function endingFor(bars: readonly Bar[], from: number, pass: number): number {
  const found = bars.findIndex((bar, index) => index >= from && bar.endings.includes(pass));
  return found < 0 ? bars.length : found;
}

/** The order in which a section's bars are played, the section being played for the `round`th time. */
function visitsOf(section: Section, round: number): readonly Visit[] {
  const { bars } = section;
  const lastClose = bars.findLastIndex(({ closesRepeat }) => closesRepeat !== null);
  const visits: Visit[] = [];
  let start = 0;
  let pass = round;
  let inRepeat = false;
  let index = 0;
  while (index < bars.length && visits.length <= CHART_LIMITS.bars) {
    const bar = at(bars, index);
    if (bar.opensRepeat && !(inRepeat && start === index)) {
      start = index;
      pass = 1;
      inRepeat = true;
    }
    const repeats = inRepeat || index <= lastClose;
    if (repeats && !inRepeat) {
      inRepeat = true;
      pass = 1;
    }
    if (bar.endings.length > 0 && !bar.endings.includes(pass)) {
      index = endingFor(bars, index + 1, pass);
      continue;
    }
    visits.push({ bar: index, pass });
    if (bar.closesRepeat !== null && pass < passesOf(bars, start, index)) {
      pass += 1;
      index = start;
    } else {
      if (bar.closesRepeat !== null && !moreEndings(bars, index)) {
        start = index + 1;
        inRepeat = false;
        pass = round;
      }
      index += 1;
    }
  }
  return visits;
}

const moreEndings = (bars: readonly Bar[], index: number): boolean =>
  (bars[index + 1]?.endings.length ?? 0) > 0;

interface Performance {
  readonly bars: PlayedBar[];
  readonly chords: PlayedChord[];
  /** The slots of every played bar, so that % can repeat what was heard. */
  readonly heard: (readonly Slot[])[];
  problem: Problem | null;
}

const problemAt = (place: TextPlace, token: string, message: string): Problem => ({
  ...place,
  message,
  token,
});

function playSlots(
  performance: Performance,
  slots: readonly Slot[],
  beats: Beats,
  where: Pick<PlayedBar, 'section' | 'pass' | 'sourceBar'>,
): void {
  const { bars, chords, heard } = performance;
  const beat = bars.length * beats;
  const number = bars.length + 1;
  const parts = shared(
    beats,
    slots.map(({ shares }) => shares),
  );
  for (const [index, slot] of slots.entries()) {
    const part = at(parts, index);
    if (slot.chord !== null) {
      chords.push({
        index: chords.length,
        chord: slot.chord,
        bar: number,
        beat: beat + part.begins,
        beats: part.beats,
        place: slot.place,
      });
    }
  }
  heard.push(slots);
  bars.push({ number, beat, beats, ...where });
}

function playBar(
  performance: Performance,
  bar: Bar,
  beats: Beats,
  where: Pick<PlayedBar, 'section' | 'pass' | 'sourceBar'>,
): void {
  if (bar.content.kind === 'slots') {
    playSlots(performance, bar.content.slots, beats, where);
    return;
  }
  const count = bar.content.bars;
  const { heard } = performance;
  if (heard.length < count) {
    const token = count === 1 ? '%' : '%%';
    const message = `“${token}” repeats ${count === 1 ? 'the bar' : 'two bars'} before it, and there ${count === 1 ? 'is none' : 'are not two'}.`;
    performance.problem = problemAt(bar.place, token, message);
    return;
  }
  for (const slots of heard.slice(-count)) playSlots(performance, slots, beats, where);
}

function unplayedBar(source: ChartSource, bars: readonly PlayedBar[]): Problem | null {
  const played = new Set(bars.map((bar) => `${bar.section} ${bar.sourceBar}`));
  for (const [section, { bars: written }] of source.sections.entries()) {
    const index = written.findIndex((_, bar) => !played.has(`${section} ${bar}`));
    const bar = written[index];
    if (bar) {
      const message = 'No repeat ever reaches this ending: check the repeat signs and counts.';
      return problemAt(bar.place, `[${bar.endings.join(',')}]`, message);
    }
  }
  return null;
}

/** What a form has more of than Corvel plays, in words; null where it is of a sensible length. */
function excess({ bars, chords }: Performance): string | null {
  if (bars.length > CHART_LIMITS.bars) return `${CHART_LIMITS.bars} bars`;
  return chords.length > CHART_LIMITS.chords ? `${CHART_LIMITS.chords} chords` : null;
}

/** Writes out the form of a chart already parsed. */
export function playChart(source: ChartSource): ChartResult {
  const performance: Performance = { bars: [], chords: [], heard: [], problem: null };
  for (const [index, section] of source.sections.entries()) {
    for (let round = 1; round <= section.repeats && performance.problem === null; round++) {
      for (const visit of visitsOf(section, round)) {
        const bar = at(section.bars, visit.bar);
        const pass = section.repeats > 1 ? round : visit.pass;
        const where = { section: index, pass, sourceBar: visit.bar };
        if (performance.problem === null) playBar(performance, bar, barOf(source.time), where);
        const tooMuch = excess(performance);
        if (tooMuch !== null) {
          const message = `With its repeats this form has more than ${tooMuch}.`;
          performance.problem = problemAt(section.place, section.name ?? '', message);
          break;
        }
      }
    }
  }
  const problem = performance.problem ?? unplayedBar(source, performance.bars);
  const chart = { source, bars: performance.bars, chords: performance.chords };
  if (!problem) return { ok: true, chart };
  const sensible = chart.chords.length > 0 && excess(performance) === null;
  return { ok: false, problems: [problem], readable: sensible ? chart : null };
}

/**
 * Reads chart text and writes out its form.
 *
 * @example readChart('| C | Xm |').ok; // false
 */
export function readChart(text: string, options: ParseOptions = {}): ChartResult {
  const parsed = parseChart(text, options);
  if (parsed.ok) return playChart(parsed.source);
  const played = playChart(parsed.readable);
  const readable = played.ok ? played.chart : played.readable;
  const { problems } = parsed;
  return { ok: false, problems, readable: readable?.chords.length ? readable : null };
}

/** The bars, counted from 1 as played, of whose text something cannot be read. */
export function unreadableBars(
  chart: Chart,
  problems: readonly Problem[],
): ReadonlyMap<number, Problem> {
  const found = new Map<number, Problem>();
  for (const bar of chart.bars) {
    const place = chart.source.sections[bar.section]?.bars[bar.sourceBar]?.place;
    const problem = problems.find(
      ({ from, to }) => place !== undefined && from <= place.to && to >= place.from,
    );
    if (problem) found.set(bar.number, problem);
  }
  return found;
}

/**
 * The major tonic by which a chart's zones are counted: its key's, else its first chord's root.
 *
 * @example noteName(zoneTonic(read('| Am | F |'), parseKey('Am'))); // "C"
 */
export const zoneTonic = ({ chords }: Chart, key: Key | null): Note | null =>
  key ? signatureTonic(key) : (chords[0]?.chord.root ?? null);

/**
 * Length of the form.
 *
 * @example inBeats(chartBeats(read('time: 3/4\n| C | F | G |'))); // 9
 */
export const chartBeats = (chart: Chart): Beats => chart.bars.length * barOf(chart.source.time);

/** The key written for the bar a chord stands in: its section's, else the chart's. */
export function writtenKeyAt(chart: Chart, chord: PlayedChord): Key | null {
  const bar = chart.bars[chord.bar - 1];
  const section = bar ? chart.source.sections[bar.section] : undefined;
  return section?.key ?? chart.source.key;
}

/**
 * Index of the chord that comes next in time and is another chord, round the end of the form;
 * null when the chart holds only one chord.
 *
 * @example nextChange(read('| C | C | F |'), 0); // 2
 */
export function nextChange(chart: Chart, index: number): number | null {
  const { chords } = chart;
  const now = chords[index];
  if (!now) return null;
  for (let offset = 1; offset < chords.length; offset++) {
    const next = at(chords, (index + offset) % chords.length);
    if (!sameChord(next.chord, now.chord)) return next.index;
  }
  return null;
}

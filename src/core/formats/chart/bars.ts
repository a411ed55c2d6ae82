/**
 * Bars as files of scores and tunes have them, written as chart text: chords at their moments, with the repeats,
 * endings, headings and keys around them. What a chart cannot hold is told in remarks, never dropped in silence.
 */
import { readChart } from '../../chart/form';
import {
  emptyBar,
  rowOf,
  type SheetBar,
  type SheetSlot,
  writeLeadSheet,
} from '../../chart/leadSheet';
import { type Key, writeKey } from '../../keys/keys';
import { greatestDivisor } from '../../lists';
import { TEMPO_RANGE } from '../../time/tempo';
import { repeatSpans } from './repeats';

/** A chord symbol in its measure; `at` in ticks of the divisions in force. */
export interface Placed {
  readonly at: number;
  readonly text: string;
}

/** A bar as a file has it, before it is chart text. */
export interface ReadBar {
  readonly number: string;
  readonly pickup: boolean;
  readonly ticks: number;
  readonly chords: readonly Placed[];
  readonly heading: string | null;
  readonly key: Key | null;
  readonly opensRepeat: boolean;
  readonly closesRepeat: number | null;
  readonly endings: readonly number[];
  /** 1 or 2 inside a measure repeat of so many measures. */
  readonly same: number;
}

const MOST_SHARES = 32;

/** The chords of a measure as slots; what sounds on from before fills its beginning. */
function slotsOf(remarks: Set<string>, measure: ReadBar, before: string): readonly SheetSlot[] {
  const { chords, ticks, number } = measure;
  const inside = chords.filter(({ at }) => at < ticks);
  const first = inside[0];
  const placed = first && first.at === 0 ? inside : [{ at: 0, text: before }, ...inside];
  // Of several symbols at one moment the last is meant.
  const distinct = placed.filter(({ at }, index) => placed[index + 1]?.at !== at);
  const lengths = distinct.map(({ at }, index) => (distinct[index + 1]?.at ?? ticks) - at);
  const unit = lengths.reduce(greatestDivisor, 0) || 1;
  const shares = lengths.map((length) => length / unit);
  const total = shares.reduce((sum, share) => sum + share, 0);
  if (total > MOST_SHARES || shares.some((share) => !Number.isInteger(share))) {
    remarks.add(`The chords of bar ${number} are set at odd moments; they share it equally.`);
    return distinct.map(({ text }) => ({ text, shares: 1 }));
  }
  return distinct.map(({ text }, index) => ({ text, shares: shares[index] ?? 1 }));
}

const sameKey = (a: Key | null, b: Key | null): boolean =>
  a?.tonic === b?.tonic && a?.mode === b?.mode;

const SECTION_NAMES = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];

/** Letters, digits and spaces of a heading, as a section's name may hold them. */
function sectionName(heading: string, used: ReadonlySet<string>): string {
  const name = heading
    .replace(/[[\]|/#]/gu, ' ')
    .replace(/\s+/gu, ' ')
    .trim()
    .slice(0, 40);
  // A bare number would read as an ending.
  if (name !== '' && !/^[\d\s,-]+$/u.test(name)) return name;
  if (name !== '') return `Part ${name}`;
  return SECTION_NAMES.find((letter) => !used.has(letter)) ?? 'Next';
}

/** Sections do not part a repeat: headings inside one are told of and left out. */
function withoutParting(remarks: Set<string>, measures: readonly ReadBar[]): readonly ReadBar[] {
  const spans = repeatSpans(measures);
  return measures.map((measure, index) => {
    const span = spans.find(({ start, end }) => start <= index && index <= end);
    // A repeat that nothing closes is none.
    if (!span) return measure.opensRepeat ? { ...measure, opensRepeat: false } : measure;
    const opensRepeat = index === span.start;
    if (opensRepeat || measure.heading === null) return { ...measure, opensRepeat };
    remarks.add(`The heading “${measure.heading}” stands inside a repeat and was left out.`);
    return { ...measure, opensRepeat, heading: null };
  });
}

/** Bars inside a repeat, its first left out, where no section can begin. */
const insideRepeats = (measures: readonly ReadBar[]): ReadonlySet<number> =>
  new Set(
    repeatSpans(measures).flatMap(({ start, end }) =>
      Array.from({ length: end - start }, (_, offset) => start + 1 + offset),
    ),
  );

interface Line {
  readonly name: string | null;
  readonly key: Key | null;
  readonly bars: SheetBar[];
}

function sheetLines(
  remarks: Set<string>,
  measures: readonly ReadBar[],
  home: Key | null,
): readonly Line[] {
  const lines: Line[] = [];
  const used = new Set<string>();
  let key = home;
  let sounding = 'N.C.';
  let inPair = false;
  const inside = insideRepeats(measures);
  for (const [index, measure] of measures.entries()) {
    const changes = measure.key !== null && !sameKey(measure.key, key);
    if (measure.key !== null) key = measure.key;
    const parts = measure.heading !== null || (changes && !inside.has(index));
    if (parts || lines.length === 0) {
      const plain = measure.heading === null && !changes;
      const name = plain ? null : sectionName(measure.heading ?? '', used);
      if (name !== null) used.add(name);
      lines.push({ name, key: sameKey(key, home) ? null : key, bars: [] });
    }
    const line = lines.at(-1);
    if (!line) continue;
    const { opensRepeat, closesRepeat, endings } = measure;
    if (measure.same === 2 && inPair) {
      inPair = false;
      const last = line.bars.pop();
      if (last) line.bars.push({ ...last, closesRepeat });
      continue;
    }
    inPair = measure.same === 2;
    const marks = { opensRepeat, closesRepeat, endings };
    if (measure.same > 0) {
      line.bars.push({ slots: [], same: measure.same === 2 ? 2 : 1, ...marks });
      continue;
    }
    const slots = slotsOf(remarks, measure, sounding);
    sounding = slots.at(-1)?.text ?? sounding;
    line.bars.push({ ...emptyBar(slots), ...marks });
  }
  return lines;
}

const BARS_A_LINE = 4;

function writeLines(lines: readonly Line[]): string {
  const rows = lines.flatMap(({ name, key, bars }) => {
    const heading =
      name === null ? [] : [rowOf([], { name, repeats: 1, key: key ? writeKey(key) : null })];
    const count = Math.ceil(bars.length / BARS_A_LINE);
    return [
      ...heading,
      ...Array.from({ length: count }, (_, row) =>
        rowOf(bars.slice(row * BARS_A_LINE, (row + 1) * BARS_A_LINE)),
      ),
    ];
  });
  return writeLeadSheet({ lines: rows });
}

/** What stands over the bars; what a file does not say is null. */
export interface SheetHeaders {
  readonly title: string | null;
  readonly key: Key | null;
  readonly beats: number;
  readonly unit: number;
  readonly tempo: number | null;
  readonly feel: string | null;
  readonly idiom: string | null;
}

/** A header's value on one line, without what would begin a comment. */
const tidy = (text: string): string =>
  text
    .replace(/\s+/gu, ' ')
    .replace(/\/{2,}/gu, '/')
    .trim();

const inRange = (tempo: number): boolean => tempo >= TEMPO_RANGE.low && tempo <= TEMPO_RANGE.high;

/** Lines for what is known; a tempo out of range is not. */
export function headerLines({
  title,
  key,
  beats,
  unit,
  tempo,
  feel,
  idiom,
}: SheetHeaders): readonly string[] {
  return [
    ...(title ? [`title: ${tidy(title).slice(0, 200)}`] : []),
    ...(key === null ? [] : [`key: ${writeKey(key)}`]),
    `time: ${beats}/${unit}`,
    ...(tempo === null || !inRange(tempo) ? [] : [`tempo: ${Math.round(tempo * 100) / 100}`]),
    ...(feel ? [`feel: ${tidy(feel).slice(0, 60)}`] : []),
    ...(idiom ? [`idiom: ${idiom}`] : []),
  ];
}

const WITHOUT_REPEATS = { opensRepeat: false, closesRepeat: null, endings: [], same: 0 } as const;

/** The text of a chart with these bars. */
export function chartText(
  remarks: Set<string>,
  bars: readonly ReadBar[],
  headers: SheetHeaders,
): string {
  const lines = headerLines(headers);
  const textOf = (played: readonly ReadBar[]): string => {
    const sheet = writeLines(sheetLines(remarks, withoutParting(remarks, played), headers.key));
    return `${[...lines, sheet].join('\n')}\n`;
  };
  const text = textOf(bars);
  if (readChart(text).ok) return text;
  remarks.add('Its repeats and endings do not fit together; the bars are kept in a row.');
  return textOf(bars.map((one) => ({ ...one, ...WITHOUT_REPEATS })));
}

/**
 * A chart text taken apart for editing. Every line is kept; a row of bars keeps its own wording
 * until it is changed, so that writing a sheet back gives the very text it was read from.
 */
import { parseChart } from './parse';
import type { Bar, ChartSource, Section } from './syntax';

/** A chord as written, or `N.C.`, and its equal shares of the bar. */
export interface SheetSlot {
  readonly text: string;
  readonly shares: number;
}

/** A written bar. `same` is 1 or 2 for `%` and `%%`, whose bars have no slots of their own. */
export interface SheetBar {
  readonly slots: readonly SheetSlot[];
  readonly same: 0 | 1 | 2;
  readonly opensRepeat: boolean;
  readonly closesRepeat: number | null;
  readonly endings: readonly number[];
}

/** A section as it is written: its name, repeats and key. */
export interface SheetSection {
  readonly name: string;
  readonly repeats: number;
  /** As written behind `key:`; null where the section states none. */
  readonly key: string | null;
}

/** A line with bars, a section's name, or both. */
export interface Row {
  readonly kind: 'row';
  readonly section: SheetSection | null;
  readonly bars: readonly SheetBar[];
  /** What follows `//`, the slashes included; empty for none. */
  readonly comment: string;
  /** The line as it was read; null once anything in it has changed. */
  readonly source: string | null;
}

/** A header, a comment or an empty line. */
interface OtherLine {
  readonly kind: 'other';
  readonly text: string;
}

/** A chart as it is written, line by line: rows of bars, and all other lines as they stand. */
export interface LeadSheet {
  readonly lines: readonly (Row | OtherLine)[];
}

/** A bar of these slots without repeats and endings. */
export const emptyBar = (slots: readonly SheetSlot[]): SheetBar => ({
  slots,
  same: 0,
  opensRepeat: false,
  closesRepeat: null,
  endings: [],
});

/** A row of bars, the first of a section where one is named. */
export const rowOf = (bars: readonly SheetBar[], section: SheetSection | null = null): Row => ({
  kind: 'row',
  section,
  bars,
  comment: '',
  source: null,
});

function readBar(bar: Bar, text: string): SheetBar {
  const { content, opensRepeat, closesRepeat, endings } = bar;
  const marks = { opensRepeat, closesRepeat, endings };
  if (content.kind === 'repeat') return { slots: [], same: content.bars, ...marks };
  const slots = content.slots.map(({ place, shares }) => ({
    text: text.slice(place.from, place.to),
    shares,
  }));
  return { slots, same: 0, ...marks };
}

function readSection(section: Section, line: string): SheetSection | null {
  if (section.name === null) return null;
  const key = /\bkey:\s*([^|/]*)/iu.exec(line)?.[1]?.trim() ?? null;
  return { name: section.name, repeats: section.repeats, key: section.key ? key : null };
}

/**
 * Takes a text apart; null while it cannot be read. Empty sections are read as lines.
 *
 * @example writeLeadSheet(readLeadSheet('| C | F |')); // "| C | F |"
 */
export function readLeadSheet(text: string): LeadSheet | null {
  const parsed = parseChart(text);
  return parsed.ok ? takeApart(text, parsed.source) : null;
}

function takeApart(text: string, source: ChartSource): LeadSheet {
  const sections = new Map<number, Section>();
  const bars = new Map<number, SheetBar[]>();
  for (const section of source.sections) {
    if (section.name !== null) sections.set(section.place.line, section);
    for (const bar of section.bars) {
      const row = bars.get(bar.place.line) ?? [];
      row.push(readBar(bar, text));
      bars.set(bar.place.line, row);
    }
  }
  const lines = text.split('\n').map((line, index): Row | OtherLine => {
    const section = sections.get(index + 1);
    const row = bars.get(index + 1);
    if (!section && !row) return { kind: 'other', text: line };
    const comment = /\/\/.*$/u.exec(line)?.[0].trimEnd() ?? '';
    return {
      kind: 'row',
      section: section ? readSection(section, line) : null,
      bars: row ?? [],
      comment,
      source: line,
    };
  });
  return { lines };
}

const slotText = ({ text, shares }: SheetSlot): string => text + ' /'.repeat(shares - 1);

/** What stands between a bar's lines: `Fm7 / Bb7 /`, `%`. */
function barText({ slots, same }: SheetBar): string {
  if (same > 0) return '%'.repeat(same);
  // Equal shares need no strokes.
  const [first] = slots;
  const equal = slots.every(({ shares }) => shares === first?.shares);
  return slots.map((slot) => slotText(equal ? { ...slot, shares: 1 } : slot)).join(' ');
}

function closing({ closesRepeat }: SheetBar): string {
  if (closesRepeat === null) return '|';
  return closesRepeat === 2 ? ':|' : `:| x${closesRepeat}`;
}

/** Bars as a line of chart text. */
export function barsText(bars: readonly SheetBar[]): string {
  let text = '';
  bars.forEach((bar, index) => {
    const before = bars[index - 1];
    if (bar.opensRepeat)
      text = before?.closesRepeat === null ? text.slice(0, -1) + '|:' : `${text}|:`;
    else if (!before) text += '|';
    const endings = bar.endings.length > 0 ? `[${bar.endings.join(',')}] ` : '';
    text += ` ${endings}${barText(bar)} ${closing(bar)}`;
    const next = bars[index + 1];
    if (next?.opensRepeat && bar.closesRepeat !== null) text += ' ';
  });
  return text;
}

function sectionText({ name, repeats, key }: SheetSection): string {
  const times = repeats > 1 ? ` x${repeats}` : '';
  return `[${name}]${times}${key === null ? '' : ` key: ${key}`}`;
}

function rowText(row: Row): string {
  if (row.source !== null) return row.source;
  const parts = [
    row.section ? sectionText(row.section) : '',
    row.bars.length > 0 ? barsText(row.bars) : '',
    row.comment,
  ];
  return parts.filter((part) => part !== '').join(' ');
}

/** The text of a sheet: a line that was not changed is the one that was read. */
export const writeLeadSheet = ({ lines }: LeadSheet): string =>
  lines.map((line) => (line.kind === 'other' ? line.text : rowText(line))).join('\n');

/** The bars and sections of a sheet as they are written, counted from 0 through the whole chart. */
import { at } from '../lists';
import type { Row, LeadSheet, SheetBar, SheetSection } from './leadSheet';

/** Bars `from` to `to`, both included. */
export interface BarRange {
  readonly from: number;
  readonly to: number;
}

/** The lines of a sheet that hold bars. */
export const rowsOf = (sheet: LeadSheet): readonly Row[] =>
  sheet.lines.filter((line): line is Row => line.kind === 'row');

/** Every written bar, in order. */
export const sheetBars = (sheet: LeadSheet): readonly SheetBar[] =>
  rowsOf(sheet).flatMap(({ bars }) => bars);

/** A section as it is written: its heading, if it has one, and where its bars begin and end. */
export interface SectionSpan extends BarRange {
  readonly section: SheetSection | null;
}

/** The sections of a sheet, each with its first and last written bar, from 0. */
export function sectionSpans(sheet: LeadSheet): readonly SectionSpan[] {
  const spans: { section: SheetSection | null; from: number; to: number }[] = [];
  let bar = 0;
  for (const row of rowsOf(sheet)) {
    if (row.section || spans.length === 0) {
      spans.push({ section: row.section, from: bar, to: bar - 1 });
    }
    bar += row.bars.length;
    const last = spans.at(-1);
    if (last) last.to = bar - 1;
  }
  return spans.filter(({ from, to }) => to >= from);
}

/** The section a written bar stands in; null where there is no such bar. */
export const sectionAt = (sheet: LeadSheet, bar: number): SectionSpan | null =>
  sectionSpans(sheet).find(({ from, to }) => from <= bar && bar <= to) ?? null;

/** Rows with the bars given instead of theirs; a row left without bars or heading disappears. */
export function withRows(
  sheet: LeadSheet,
  change: (row: Row, first: number) => readonly Row[],
): LeadSheet {
  let first = 0;
  const lines = sheet.lines.flatMap((line): LeadSheet['lines'] => {
    if (line.kind === 'other') return [line];
    const rows = change(line, first);
    first += line.bars.length;
    return rows.flatMap((row): LeadSheet['lines'] => {
      if (row.bars.length > 0 || row.section) return [row];
      return row.comment === '' ? [] : [{ kind: 'other', text: row.comment }];
    });
  });
  return { lines };
}

/** Rewrites bars one by one, leaving the others' rows as they are worded. */
export function mapBars(
  sheet: LeadSheet,
  change: (bar: SheetBar, index: number) => SheetBar,
): LeadSheet {
  return withRows(sheet, (row, first) => {
    const bars = row.bars.map((bar, offset) => change(bar, first + offset));
    const same = bars.every((bar, offset) => bar === row.bars[offset]);
    return [same ? row : { ...row, bars, source: null }];
  });
}

/** The sheet with one of its written bars changed. */
export const changeBar = (
  sheet: LeadSheet,
  bar: number,
  change: (bar: SheetBar) => SheetBar,
): LeadSheet => mapBars(sheet, (current, index) => (index === bar ? change(current) : current));

/** A `%` written out, so that it can be changed; other bars as they are. */
export function writtenOut(bars: readonly SheetBar[], index: number): SheetBar {
  const bar = at(bars, index);
  if (bar.same === 0) return bar;
  const before = bars[index - bar.same];
  if (!before) return { ...bar, same: 0, slots: [{ text: 'N.C.', shares: 1 }] };
  return { ...bar, same: 0, slots: writtenOut(bars, index - bar.same).slots };
}

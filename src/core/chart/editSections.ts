/** Edits of repeats, endings and sections; each takes a sheet and gives another. */
import type { LeadSheet, SheetSection } from './leadSheet';
import { type BarRange, mapBars, sectionAt, sectionSpans, sheetBars, withRows } from './sheetBars';

/** Repeats a range so many times; with null, takes the repeats in it away, and their endings. */
export function setRepeat(sheet: LeadSheet, span: BarRange, times: number | null): LeadSheet {
  const section = sectionAt(sheet, span.from);
  if (!section || span.to > section.to) return sheet;
  const within = (index: number) => index >= span.from && index <= span.to;
  const marked = mapBars(sheet, (bar, index) => {
    if (!within(index)) return bar;
    const opensRepeat = times !== null && index === span.from;
    const closesRepeat = times !== null && index === span.to ? times : null;
    return bar.opensRepeat === opensRepeat && bar.closesRepeat === closesRepeat
      ? bar
      : { ...bar, opensRepeat, closesRepeat };
  });
  const bars = sheetBars(marked).slice(section.from, section.to + 1);
  if (bars.some(({ closesRepeat }) => closesRepeat !== null)) return marked;
  return mapBars(marked, (bar, index) =>
    index >= section.from && index <= section.to && bar.endings.length > 0
      ? { ...bar, endings: [] }
      : bar,
  );
}

/**
 * Makes a range the ending for the passes given, and what follows in its section the ending for
 * the next pass, where that is none yet. An empty list takes the ending away.
 */
export function setEnding(sheet: LeadSheet, span: BarRange, passes: readonly number[]): LeadSheet {
  const section = sectionAt(sheet, span.from);
  if (!section || span.to > section.to) return sheet;
  const following = span.to < section.to ? span.to + 1 : null;
  const more = following !== null && passes.length > 0;
  return mapBars(sheet, (bar, index) => {
    if (more && index === following && bar.endings.length === 0 && passes.includes(1)) {
      return { ...bar, endings: [Math.max(...passes) + 1] };
    }
    if (index < span.from || index > span.to) return bar;
    const endings = index === span.from ? passes : [];
    const closes = more && index === span.to;
    return { ...bar, endings, closesRepeat: closes ? (bar.closesRepeat ?? 2) : bar.closesRepeat };
  });
}

/** Begins a section at a bar, or changes the one that begins there. */
export function setSection(sheet: LeadSheet, bar: number, section: SheetSection): LeadSheet {
  const span = sectionSpans(sheet).find(({ from }) => from === bar);
  if (span?.section) {
    return withRows(sheet, (row) => [
      row.section === span.section ? { ...row, section, source: null } : row,
    ]);
  }
  return withRows(sheet, (row, first) => {
    const offset = bar - first;
    if (offset < 0 || offset >= row.bars.length) return [row];
    const rest = { ...row, section, bars: row.bars.slice(offset), source: null };
    if (offset === 0) return [rest];
    return [{ ...row, bars: row.bars.slice(0, offset), comment: '', source: null }, rest];
  });
}

/** Joins the section that begins at a bar to the one before it. */
export const removeSection = (sheet: LeadSheet, bar: number): LeadSheet => {
  const span = sectionSpans(sheet).find(({ from }) => from === bar);
  if (!span?.section) return sheet;
  return withRows(sheet, (row) =>
    row.section === span.section ? [{ ...row, section: null, source: null }] : [row],
  );
};

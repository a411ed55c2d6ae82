/** An edit of a sheet as an edit of a chart’s text: what it leaves without a meaning is taken away. */
import { at } from '../lists';
import { readChart } from './form';
import { readLeadSheet, type LeadSheet, type SheetBar, writeLeadSheet } from './leadSheet';
import { type SectionSpan, mapBars, sectionSpans, sheetBars } from './sheetBars';

/** Repeats that open and never close, and endings of no repeat, taken away section by section. */
function tidied(sheet: LeadSheet): LeadSheet {
  const all = sheetBars(sheet);
  const lostOpenings = new Set<number>();
  const lostEndings = new Set<number>();
  for (const { from, to } of sectionSpans(sheet)) {
    let closed = false;
    let closes = false;
    for (let bar = to; bar >= from; bar--) {
      const { opensRepeat, closesRepeat } = at(all, bar);
      if (closesRepeat !== null) closed = closes = true;
      if (opensRepeat && !closed) lostOpenings.add(bar);
      if (opensRepeat) closed = false;
    }
    if (!closes) for (let bar = from; bar <= to; bar++) lostEndings.add(bar);
  }
  return mapBars(sheet, (bar, index) => {
    const opensRepeat = bar.opensRepeat && !lostOpenings.has(index);
    const endings = lostEndings.has(index) ? [] : bar.endings;
    const same = opensRepeat === bar.opensRepeat && endings.length === bar.endings.length;
    return same ? bar : { ...bar, opensRepeat, endings };
  });
}

/** The section a line of the written sheet belongs to. */
function sectionOfLine(sheet: LeadSheet, line: number): SectionSpan | undefined {
  const before = { lines: sheet.lines.slice(0, line) };
  return sectionSpans(sheet).findLast(({ from }) => from < sheetBars(before).length);
}

/** Endings that no repeat reaches any more are taken away, with all of their section. */
function settled(sheet: LeadSheet): LeadSheet {
  const result = readChart(writeLeadSheet(sheet));
  const span = result.ok ? undefined : sectionOfLine(sheet, result.problems[0]?.line ?? 0);
  if (!span) return sheet;
  const ends = (bar: SheetBar, index: number) =>
    index >= span.from && index <= span.to && bar.endings.length > 0;
  const freed = mapBars(sheet, (bar, index) => (ends(bar, index) ? { ...bar, endings: [] } : bar));
  return sheetBars(sheet).some(ends) ? settled(freed) : sheet;
}

/** Edits a chart text; null while the text cannot be read. */
export function editChart(text: string, edit: (sheet: LeadSheet) => LeadSheet): string | null {
  const sheet = readLeadSheet(text);
  return sheet ? writeLeadSheet(settled(tidied(edit(sheet)))) : null;
}

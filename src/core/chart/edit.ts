/**
 * Edits of the bars of a chart. Bars are counted as they are written, from 0, through the whole
 * chart; every edit takes a sheet and gives another. Repeat signs and endings stay with the music
 * around them when bars come and go.
 */
import { at, range } from '../lists';
import { readChart } from './form';
import {
  barsText,
  emptyBar,
  readLeadSheet,
  type Row,
  rowOf,
  type LeadSheet,
  type SheetBar,
  type SheetSection,
  type SheetSlot,
  writeLeadSheet,
} from './leadSheet';

/** Bars `from` to `to`, both included. */
export interface BarRange {
  readonly from: number;
  readonly to: number;
}

const ROW_LIMIT = 8;
const ROW_LENGTH = 4;

const rowsOf = (sheet: LeadSheet): readonly Row[] =>
  sheet.lines.filter((line): line is Row => line.kind === 'row');

/** Every written bar, in order. */
export const sheetBars = (sheet: LeadSheet): readonly SheetBar[] =>
  rowsOf(sheet).flatMap(({ bars }) => bars);

/** A section as it is written: its heading, if it has one, and where its bars begin and end. */
export interface SectionSpan extends BarRange {
  readonly section: SheetSection | null;
}

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

export const sectionAt = (sheet: LeadSheet, bar: number): SectionSpan | null =>
  sectionSpans(sheet).find(({ from, to }) => from <= bar && bar <= to) ?? null;

/** Rows with the bars given instead of theirs; a row left without bars or heading disappears. */
function withRows(
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
function mapBars(sheet: LeadSheet, change: (bar: SheetBar, index: number) => SheetBar): LeadSheet {
  return withRows(sheet, (row, first) => {
    const bars = row.bars.map((bar, offset) => change(bar, first + offset));
    const same = bars.every((bar, offset) => bar === row.bars[offset]);
    return [same ? row : { ...row, bars, source: null }];
  });
}

const changeBar = (sheet: LeadSheet, bar: number, change: (bar: SheetBar) => SheetBar): LeadSheet =>
  mapBars(sheet, (current, index) => (index === bar ? change(current) : current));

/** A `%` written out, so that it can be changed; other bars as they are. */
function writtenOut(bars: readonly SheetBar[], index: number): SheetBar {
  const bar = at(bars, index);
  if (bar.same === 0) return bar;
  const before = bars[index - bar.same];
  if (!before) return { ...bar, same: 0, slots: [{ text: 'N.C.', shares: 1 }] };
  return { ...bar, same: 0, slots: writtenOut(bars, index - bar.same).slots };
}

const changeSlots = (
  sheet: LeadSheet,
  bar: number,
  change: (slots: readonly SheetSlot[]) => readonly SheetSlot[],
): LeadSheet =>
  changeBar(sheet, bar, () => {
    const whole = writtenOut(sheetBars(sheet), bar);
    return { ...whole, slots: change(whole.slots) };
  });

/** Chords typed over a slot: the first takes its place, further ones follow it in the bar. */
export function typeOver(
  sheet: LeadSheet,
  bar: number,
  slot: number,
  texts: readonly string[],
): LeadSheet {
  if (texts[0] === '%' && texts.length === 1) {
    return changeBar(sheet, bar, (current) => ({ ...current, slots: [], same: 1 }));
  }
  return changeSlots(sheet, bar, (slots) => {
    const shares = slots[slot]?.shares ?? 1;
    const typed = texts.map((text) => ({ text, shares }));
    return slots.toSpliced(slot, 1, ...typed);
  });
}

/** Puts one more chord behind a slot, with as much of the bar as that one has. */
export const insertSlot = (sheet: LeadSheet, bar: number, slot: number, text: string): LeadSheet =>
  changeSlots(sheet, bar, (slots) =>
    slots.toSpliced(slot + 1, 0, { text, shares: slots[slot]?.shares ?? 1 }),
  );

/** Takes one chord out of a bar of several; the others share its time. */
export const removeSlot = (sheet: LeadSheet, bar: number, slot: number): LeadSheet =>
  changeSlots(sheet, bar, (slots) => (slots.length > 1 ? slots.toSpliced(slot, 1) : slots));

/** Splits a slot in two halves of the same chord. */
export const splitSlot = (sheet: LeadSheet, bar: number, slot: number): LeadSheet =>
  changeSlots(sheet, bar, (slots) => {
    const odd = (slots[slot]?.shares ?? 1) % 2 === 1;
    const finer = odd ? slots.map((one) => ({ ...one, shares: one.shares * 2 })) : slots;
    const half = { ...at(finer, slot), shares: at(finer, slot).shares / 2 };
    return finer.toSpliced(slot, 1, half, half);
  });

const MOST_SHARES = 32;

/** Gives a chord more (or less) of its bar, a share at a time. */
export const stretchSlot = (sheet: LeadSheet, bar: number, slot: number, by: number): LeadSheet =>
  changeSlots(sheet, bar, (slots) =>
    slots.map((one, index) =>
      index === slot
        ? { ...one, shares: Math.max(1, Math.min(MOST_SHARES, one.shares + by)) }
        : one,
    ),
  );

function inRows(bars: readonly SheetBar[]): readonly (readonly SheetBar[])[] {
  if (bars.length <= ROW_LIMIT) return [bars];
  return range(0, Math.ceil(bars.length / ROW_LENGTH)).map((row) =>
    bars.slice(row * ROW_LENGTH, (row + 1) * ROW_LENGTH),
  );
}

/** Where bars go in: before a bar, or behind one, in its section. */
export type Spot = { readonly before: number } | { readonly after: number };

/** Puts bars in. A repeat or ending that begins at the bar they go before begins with them. */
export function insertBars(sheet: LeadSheet, spot: Spot, inserted: readonly SheetBar[]): LeadSheet {
  const last = sheetBars(sheet).length - 1;
  const bar = Math.min(last, 'before' in spot ? spot.before : spot.after);
  const behind = 'after' in spot || spot.before > last;
  return withRows(sheet, (row, first) => {
    const offset = bar - first;
    const neighbour = row.bars[offset];
    if (offset < 0 || !neighbour) return [row];
    const [head, ...tail] = inserted;
    if (!head) return [row];
    const { opensRepeat, endings } = neighbour;
    const put = behind
      ? [neighbour, head, ...tail]
      : opensRepeat || endings.length > 0
        ? [
            { ...head, opensRepeat, endings },
            ...tail,
            { ...neighbour, opensRepeat: false, endings: [] },
          ]
        : [head, ...tail, neighbour];
    return inRows(row.bars.toSpliced(offset, 1, ...put)).map((bars, line) =>
      line === 0 ? { ...row, bars, source: null } : rowOf(bars),
    );
  });
}

/** The bars of one section without some of them; marks that outlive them go to their neighbours. */
function thinned(bars: readonly SheetBar[], gone: (offset: number) => boolean): SheetBar[] {
  const kept: SheetBar[] = [];
  let opens = false;
  let endings: readonly number[] = [];
  bars.forEach((bar, offset) => {
    if (gone(offset)) {
      opens = opens || bar.opensRepeat;
      if (bar.endings.length > 0) endings = bar.endings;
      if (bar.closesRepeat !== null) {
        const last = kept.at(-1);
        const whole = opens || !last || last.closesRepeat !== null;
        if (!whole) kept[kept.length - 1] = { ...last, closesRepeat: bar.closesRepeat };
        opens = false;
        endings = [];
      }
      return;
    }
    kept.push({
      ...bar,
      opensRepeat: bar.opensRepeat || opens,
      endings: bar.endings.length > 0 ? bar.endings : endings,
    });
    opens = false;
    endings = [];
  });
  return kept;
}

const SILENT = emptyBar([{ text: 'N.C.', shares: 1 }]);

/** Takes bars out. A chart keeps one bar, silent. */
export function deleteBars(sheet: LeadSheet, { from, to }: BarRange): LeadSheet {
  const all = sheetBars(sheet);
  if (from <= 0 && to >= all.length - 1) {
    const silenced = changeBar(sheet, 0, () => SILENT);
    return all.length === 1 ? silenced : deleteBars(silenced, { from: 1, to });
  }
  const gone = (bar: number) => bar >= from && bar <= to;
  const survivors = new Map<number, SheetBar>();
  for (const span of sectionSpans(sheet)) {
    const kept = thinned(all.slice(span.from, span.to + 1), (offset) => gone(span.from + offset));
    const stay = range(span.from, span.to + 1).filter((bar) => !gone(bar));
    stay.forEach((bar, index) => survivors.set(bar, at(kept, index)));
  }
  const emptied = withRows(sheet, (row, first) => {
    const bars = row.bars.flatMap((_, offset) => survivors.get(first + offset) ?? []);
    const same = bars.length === row.bars.length && barsText(bars) === barsText(row.bars);
    return [same ? row : { ...row, bars, source: null }];
  });
  return withoutEmptySections(emptied);
}

/** Drops the headings whose bars are all gone. */
function withoutEmptySections(sheet: LeadSheet): LeadSheet {
  const rows = rowsOf(sheet);
  const empty = new Set(
    rows.filter((row, index) => {
      if (!row.section || row.bars.length > 0) return false;
      const after = rows.slice(index + 1);
      const next = after.findIndex((other) => other.section !== null);
      return !(next < 0 ? after : after.slice(0, next)).some((other) => other.bars.length > 0);
    }),
  );
  return withRows(sheet, (row) => (empty.has(row) ? [{ ...row, section: null }] : [row]));
}

/** Bars with only the repeats and endings that lie whole among them. */
function selfContained(bars: readonly SheetBar[]): readonly SheetBar[] {
  const opens = bars.findIndex((bar) => bar.opensRepeat);
  const closes = bars.findLastIndex((bar) => bar.closesRepeat !== null);
  const whole = opens >= 0 && closes >= opens;
  return whole
    ? bars
    : bars.map((bar) => ({ ...bar, opensRepeat: false, closesRepeat: null, endings: [] }));
}

/** Bars as they can stand anywhere: `%` written out where what it repeats is not among them. */
export function takeBars(sheet: LeadSheet, { from, to }: BarRange): readonly SheetBar[] {
  const all = sheetBars(sheet);
  const taken = range(from, Math.min(to, all.length - 1) + 1).map((index) => {
    const bar = at(all, index);
    return bar.same > 0 && index - bar.same < from ? writtenOut(all, index) : bar;
  });
  return selfContained(taken);
}

const spotBar = (spot: Spot): number => ('before' in spot ? spot.before : spot.after + 1);

/** Moves bars to a spot, which is counted as things stand before the move. */
export function moveBars(sheet: LeadSheet, moved: BarRange, spot: Spot): LeadSheet {
  const target = spotBar(spot);
  const size = moved.to - moved.from + 1;
  const inside = target > moved.from && target < moved.to + 1;
  if (inside || size >= sheetBars(sheet).length) return sheet;
  const taken = takeBars(sheet, moved);
  const shift = (bar: number) => (bar > moved.to ? bar - size : bar);
  if ('before' in spot) {
    if (spot.before === moved.from) return sheet;
    return insertBars(deleteBars(sheet, moved), { before: shift(spot.before) }, taken);
  }
  if (spot.after >= moved.from && spot.after <= moved.to) return sheet;
  return insertBars(deleteBars(sheet, moved), { after: shift(spot.after) }, taken);
}

/** Copies bars to a spot. */
export const copyBars = (sheet: LeadSheet, copied: BarRange, spot: Spot): LeadSheet =>
  insertBars(sheet, spot, takeBars(sheet, copied));

/** Bars as chart text, to be pasted anywhere. */
export const barsAsText = (sheet: LeadSheet, span: BarRange): string =>
  barsText(takeBars(sheet, span));

/** Reads bars from pasted text, with or without bar lines; null when it cannot be read. */
export function barsFromText(text: string): readonly SheetBar[] | null {
  const trimmed = text.trim();
  const lined = trimmed.includes('|') ? trimmed : `| ${trimmed} |`;
  const sheet =
    trimmed === '' ? null : readLeadSheet(/\bkey:/iu.test(lined) ? lined : `key: C\n${lined}`);
  return sheet ? sheetBars(sheet) : null;
}

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

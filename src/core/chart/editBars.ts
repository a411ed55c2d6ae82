/**
 * Edits of whole bars; each takes a sheet and gives another. Repeat signs and endings stay with the
 * music around them when bars come and go.
 */
import { at, range } from '../lists';
import {
  barsText,
  emptyBar,
  readLeadSheet,
  rowOf,
  type LeadSheet,
  type SheetBar,
} from './leadSheet';
import {
  type BarRange,
  changeBar,
  rowsOf,
  sectionSpans,
  sheetBars,
  withRows,
  writtenOut,
} from './sheetBars';

const ROW_LIMIT = 8;
const ROW_LENGTH = 4;

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

/**
 * Takes bars out. A chart keeps one bar, silent.
 *
 * @example editChart('| C | F | G |', (sheet) => deleteBars(sheet, { from: 1, to: 1 })); // "| C | G |"
 */
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
function takeBars(sheet: LeadSheet, { from, to }: BarRange): readonly SheetBar[] {
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

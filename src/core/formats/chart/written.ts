/** The bars of a chart as they are written, for formats that write them bar by bar. */
import type { Bar, ChartSource, Slot } from '../../chart/syntax';
import type { Key } from '../../keys/keys';
import { at } from '../../lists';

/** A written bar with its own slots, also where the chart repeats one before. */
export interface WrittenBar {
  readonly slots: readonly Slot[];
  readonly bar: Bar;
  /** The section that begins here; null inside one. */
  readonly section: { readonly name: string | null; readonly key: Key | null } | null;
  /** How often a whole section is played that begins, or ends, here; 1 for once. */
  readonly begins: number;
  readonly ends: number;
}

/** Every bar in the order in which it is written. */
export function writtenBars({ sections }: ChartSource): readonly WrittenBar[] {
  const written: WrittenBar[] = [];
  for (const { name, key, bars, repeats } of sections)
    for (const [index, bar] of bars.entries()) {
      const { content } = bar;
      const before = content.kind === 'repeat' ? written[written.length - content.bars] : undefined;
      written.push({
        slots: content.kind === 'slots' ? content.slots : (before?.slots ?? []),
        bar,
        section: index === 0 && (name !== null || key !== null) ? { name, key } : null,
        begins: index === 0 ? repeats : 1,
        ends: index === bars.length - 1 ? repeats : 1,
      });
    }
  return written;
}

/** Shares of a bar that slots take together. */
export const sharesOf = (slots: readonly Slot[]): number =>
  slots.reduce((sum, { shares }) => sum + shares, 0);

/** Rows of so many bars, a new one for every section. */
export function inRows(
  bars: readonly WrittenBar[],
  width: number,
): readonly (readonly WrittenBar[])[] {
  const rows: WrittenBar[][] = [];
  for (const bar of bars) {
    const row = rows.at(-1);
    if (row && row.length < width && bar.section === null) at(rows, rows.length - 1).push(bar);
    else rows.push([bar]);
  }
  return rows;
}

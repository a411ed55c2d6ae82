/** Where bars lie on the bench: which is above or below another, and where those dropped go. */
import type { Spot } from '$core/chart/editBars';
import type { BarRange } from '$core/chart/sheetBars';

/** A bar as it is drawn, with its corner in pixels. */
export interface DrawnBar {
  readonly bar: number;
  readonly left: number;
  readonly top: number;
}

/** Pixels by which two tops differ at least where the bars stand in two rows. */
const ROW = 4;
/** How much farther a pixel down counts than one aside: the next row comes before the nearest column. */
const DOWN = 10;

/** The bar drawn nearest above or below one; that one where there is none. */
export function nearestAcross(bars: readonly DrawnBar[], bar: number, down: boolean): number {
  const here = bars.find((one) => one.bar === bar);
  if (!here) return bar;
  const beyond = bars.filter(({ top }) => (down ? top > here.top + ROW : top < here.top - ROW));
  const distance = ({ left, top }: DrawnBar) =>
    Math.abs(top - here.top) * DOWN + Math.abs(left - here.left);
  return beyond.sort((one, other) => distance(one) - distance(other))[0]?.bar ?? bar;
}

interface Item {
  readonly id: string;
  readonly bar: number;
}

export interface Drop {
  readonly picked: BarRange;
  readonly spot: Spot;
}

/**
 * What is carried where, when a bar has been dropped: the whole selection where the bar is of it.
 *
 * @param items the bars of the section in their order now, the dropped one among them
 * @param first the section's first bar
 * @returns null where the dropped bar is not among them
 */
export function dropOf(
  items: readonly Item[],
  id: string,
  first: number,
  { from, to }: BarRange,
): Drop | null {
  const moved = items.findIndex((item) => item.id === id);
  const bar = items[moved]?.bar;
  if (bar === undefined) return null;
  const picked = from <= bar && bar <= to ? { from, to } : { from: bar, to: bar };
  const before = items
    .slice(0, moved)
    .findLast((item) => item.bar < picked.from || item.bar > picked.to);
  return { picked, spot: before ? { after: before.bar } : { before: first } };
}

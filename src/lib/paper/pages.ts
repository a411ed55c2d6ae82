/** Where a long sheet is cut into pages. */

/** A stretch down the sheet that is not cut: a line of words, a staff, a picture. */
export interface Whole {
  readonly top: number;
  readonly bottom: number;
}

/**
 * The tops of the pages of a sheet: each cut goes as low as the page allows without cutting through
 * anything whole, and where something whole is longer than a page, through it.
 *
 * @param wholes in any order, in the sheet's own units
 * @param room how much of the sheet a page holds
 */
export function cutPages(
  wholes: readonly Whole[],
  height: number,
  room: number,
): readonly number[] {
  const tops = [0];
  // What overlaps is whole together; a hair of overlap is none.
  const HAIR = 0.5;
  const sorted = [...wholes].sort((a, b) => a.top - b.top);
  for (let top = 0; height - top > room + HAIR; top = tops.at(-1) ?? height) {
    let cut = top + room;
    for (const whole of sorted.toReversed()) {
      const crossed = whole.top < cut - HAIR && whole.bottom > cut + HAIR;
      if (crossed && whole.top > top + HAIR) cut = whole.top;
    }
    // What hangs together and is longer than a page is cut where the page ends.
    const through = sorted.some((one) => one.top < cut - HAIR && one.bottom > cut + HAIR);
    tops.push(through ? top + room : cut);
  }
  return tops;
}

/** Walking from note to note with the arrow keys. */
import type { Place } from '$core/neck/neck';

/**
 * The mark to go to from `from`: along the same string for left and right; across strings the
 * nearest fret of the next string that has a mark. Null at the edge.
 */
export function nearestMark<P extends Place>(
  marks: readonly P[],
  from: Place,
  across: number,
  along: number,
): P | null {
  const ahead = marks.filter((mark) =>
    across !== 0
      ? (mark.string - from.string) * across > 0
      : mark.string === from.string && (mark.fret - from.fret) * along > 0,
  );
  const distance = (mark: P): number =>
    across !== 0
      ? Math.abs(mark.string - from.string) * 100 + Math.abs(mark.fret - from.fret)
      : Math.abs(mark.fret - from.fret);
  return ahead.reduce<P | null>(
    (best, mark) => (best === null || distance(mark) < distance(best) ? mark : best),
    null,
  );
}

/** The straight line between two ranges, which is all the small pictures of Plan need of a scale. */

export type Ends = readonly [from: number, to: number];

/**
 * Maps the first range onto the second; what lies outside goes on along the same line. The scales of
 * d3 bring ticks, number formats and colours along, which the first view has no use for.
 *
 * @example linear([0, 10], [0, 100])(5) // 50
 */
export const linear =
  ([a, b]: Ends, [from, to]: Ends): ((value: number) => number) =>
  (value) =>
    a === b ? (from + to) / 2 : from + ((value - a) / (b - a)) * (to - from);

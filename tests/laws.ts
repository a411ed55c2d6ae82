/** What tests of laws share: how many cases they try, and charts as values. */
import { type Chart, readChart } from '$core/chart/form';

/** `npm run soak` tries every case of a law and draws others each time; `npm test` a fixed share. */
const LONG = process.env['CORVEL_LAWS'] === 'long';

/** How often `npm run soak` tries a drawn case for each time `npm test` does. */
const LONGER = 20;

/** The number of cases fast-check draws, `few` in `npm test`. */
export const runs = (few: number): { readonly numRuns: number } => ({
  numRuns: LONG ? LONGER * few : few,
});

/** The golden ratio: its multiples never fall into step with a table's rows. */
const SPREAD = (1 + Math.sqrt(5)) / 2;

/**
 * All cases in `npm run soak`, else `few` of them spread over the whole list. `turn` starts elsewhere, so
 * that a law told of many things tries other cases with each.
 */
export function some<T>(cases: readonly T[], few: number, turn = 0): readonly T[] {
  if (LONG || few >= cases.length) return cases;
  const first = turn * few;
  const chosen = new Set<number>();
  for (let step = first; chosen.size < few; step += 1) {
    chosen.add(Math.floor(((((step * SPREAD) % 1) + 1) % 1) * cases.length));
  }
  return [...chosen].sort((a, b) => a - b).map((index) => cases[index] as T);
}

/** Every pair of a row of one list with a row of another. */
export const pairs = <A, B>(
  first: readonly A[],
  second: readonly B[],
): readonly (readonly [A, B])[] =>
  first.flatMap((one) => second.map((other) => [one, other] as const));

/** A chart from its text. @throws what is wrong with the text, where it cannot be read. */
export function chartOf(text: string): Chart {
  const result = readChart(text);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return result.chart;
}

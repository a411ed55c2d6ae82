/** A length of time shared out in whole ticks. */
import type { Beats } from './units';

/** A part of a length: where it begins, from the beginning of the length, and how long it is. */
interface Share {
  readonly begins: Beats;
  readonly beats: Beats;
}

/**
 * Parts of a length that hold so many equal shares of it each, and together are the length: a share is what it is
 * due, rounded down, and the first ones are a tick longer (the largest remainder method, where all remainders are
 * alike).
 *
 * @example
 * shared(4 * BEAT, [1, 1, 2]).map(({ beats }) => inBeats(beats)); // [1,1,2]
 * shared(10, [1, 1, 1]).map(({ begins }) => begins); // [0,4,7]
 */
export function shared(length: Beats, shares: readonly number[]): readonly Share[] {
  const all = shares.reduce((sum, share) => sum + share, 0);
  const due = Math.floor(length / all);
  const edge = (share: number): Beats => share * due + Math.min(share, length - all * due);
  let passed = 0;
  return shares.map((share) => {
    const begins = edge(passed);
    passed += share;
    return { begins, beats: edge(passed) - begins };
  });
}

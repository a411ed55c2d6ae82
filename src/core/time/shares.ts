/** A length of time shared out in whole ticks. */
import type { Beats } from './units';

/**
 * Parts of a length that hold so many equal shares of it each, and together are the length: a share is what it is
 * due, rounded down, and the first ones are a tick longer (the largest remainder method, where all remainders are
 * alike).
 *
 * @example
 * shared(4 * BEAT, [1, 1, 2]).map(inBeats); // [1,1,2]
 * shared(10, [1, 1, 1]); // [4,3,3]
 */
export function shared(length: Beats, shares: readonly number[]): readonly Beats[] {
  const all = shares.reduce((sum, share) => sum + share, 0);
  const due = Math.floor(length / all);
  const edge = (share: number): Beats => share * due + Math.min(share, length - all * due);
  let passed = 0;
  return shares.map((share) => {
    passed += share;
    return edge(passed) - edge(passed - share);
  });
}

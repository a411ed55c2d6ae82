/** Moments as they were meant: a third of a beat that was written as a decimal is a third. */
import type { Beats } from './units';

/** Into how many a beat is divided where music is written, the simplest first. */
const DIVISIONS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 14, 16, 32, 64];

/**
 * How far a decimal may miss what it stands for, in beats: 0.666 misses two thirds by so much. Two such divisions of
 * a beat lie more than twice as far apart.
 */
const CUT: Beats = 0.000_67;

/**
 * What a number of beats from outside stands for: the division of a beat that it is but for the digits it was cut
 * to; itself where it is none, as in what was played freely, or where nothing would be left of it.
 *
 * @example meantBeat(0.333) // 0.3333333333333333
 * @example meantBeat(1.6667) // 1.6666666666666667
 * @example meantBeat(0.37) // 0.37
 */
export function meantBeat(beat: Beats): Beats {
  for (const parts of DIVISIONS) {
    const count = Math.round(beat * parts);
    if (count !== 0 && Math.abs(count / parts - beat) < CUT) return count / parts;
  }
  return beat;
}

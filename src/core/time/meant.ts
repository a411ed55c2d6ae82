/** Moments as they were meant: a third of a beat that was written as a decimal is a third. */
import { BEAT, type Beats, inBeats, type WrittenBeats } from './units';

/** Into how many a beat is divided where music is written, the simplest first. */
const DIVISIONS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 14, 16, 32, 64];

/**
 * How far a decimal may miss what it stands for, in beats: 0.666 misses two thirds by so much. Two such divisions of
 * a beat lie more than twice as far apart.
 */
const CUT = 0.000_67;

/**
 * What a number of beats from outside stands for: the division of a beat that it is but for the digits it was cut
 * to; the nearest tick where it is none, as in what was played freely, or where nothing would be left of it.
 *
 * @example
 * meantBeats(0.333); // 6720
 * meantBeats(1.5); // 30240
 */
export function meantBeats(written: WrittenBeats): Beats {
  const nearest = Math.round(written * BEAT);
  // What was written from ticks is those ticks.
  if (inBeats(nearest) === written) return nearest;
  for (const parts of DIVISIONS) {
    const count = Math.round(written * parts);
    if (count !== 0 && Math.abs(count / parts - written) < CUT) return count * (BEAT / parts);
  }
  return nearest;
}

/**
 * A number of beats with all the digits of what it stands for; itself where that is no division of a beat.
 *
 * @example
 * asMeant(0.667); // 0.6666666666666666
 * asMeant(0.37); // 0.37
 */
export function asMeant(written: WrittenBeats): WrittenBeats {
  const meant = meantBeats(written);
  const isDivision = meant !== 0 && DIVISIONS.some((parts) => meant % (BEAT / parts) === 0);
  return isDivision ? inBeats(meant) : written;
}

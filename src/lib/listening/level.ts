/** How loud what comes in is of late, and for how long nothing has. */
import type { Seconds } from '$core/time/units';
import { isHeard, type Levels } from './says';

/** Seconds over which the level is looked at. */
const LATELY = 2;

interface Level extends Levels {
  /** The loudest sample of each stretch of late, by when it came in. */
  readonly peaks: readonly { readonly at: Seconds; readonly peak: number }[];
}

export const NO_LEVEL: Level = { peak: 0, silence: 0, peaks: [] };

/** The level once another stretch has come in at a second of the clock. */
export function levelAfter({ peaks, silence }: Level, peak: number, at: Seconds): Level {
  const lately = [...peaks.filter((one) => one.at > at - LATELY), { at, peak }];
  const heard = lately.findLast((one) => isHeard(one.peak));
  return {
    peaks: lately,
    peak: Math.max(...lately.map((one) => one.peak)),
    silence: heard ? at - heard.at : silence + at - (lately.at(-2)?.at ?? at),
  };
}

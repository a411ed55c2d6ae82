/** Units of time, so that a signature says which one it wants. */

/** Counts of the time signature's unit: quarters in 4/4, eighths in 6/8. */
export type Beats = number;
export type Seconds = number;
/** Divisions of a quarter note; {@link QUARTER} of them. */
export type Ticks = number;
export type BeatsPerMinute = number;

/** How far beats that were reckoned, or shares of them, may miss what they are. */
export const NEAR: Beats = 1e-6;

/** Ticks of a quarter note: enough for sixteenths and for triplets of them. */
export const QUARTER: Ticks = 12;

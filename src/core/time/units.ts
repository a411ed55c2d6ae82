/** Units of time, so that a signature says which one it wants. */

/**
 * A moment or a length in beats of the time signature's unit (quarters in 4/4, eighths in 6/8), in whole ticks:
 * {@link BEAT} of them are one beat. Equal moments are equal numbers.
 */
export type Beats = number & { readonly unit?: 'ticks of a beat' };
export type Seconds = number & { readonly unit?: 'seconds' };
export type BeatsPerMinute = number;

/** A beat. All of 1 to 10, 12, 14, 16, 32 and 64 divide it. */
export const BEAT: Beats = 20_160;

/** A number of beats as files, the database and people write it: half a beat is 0.5. */
export type WrittenBeats = number & { readonly unit?: 'beats' };

/**
 * How many beats some time is.
 *
 * @example inBeats(3 * BEAT + BEAT / 2) // 3.5
 */
export const inBeats = (length: Beats): WrittenBeats => length / BEAT;

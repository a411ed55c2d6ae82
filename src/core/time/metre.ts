/** Metre: time signatures, and where they change. */
import { at } from '../lists';
import { BEAT, type Beats } from './units';

/** A time signature: so many of a note value to the bar. */
export interface TimeSignature {
  readonly beats: number;
  /** The note value that counts as a beat: 4 for quarters, 8 for eighths. */
  readonly unit: number;
}

/** Where a chart states none. */
export const DEFAULT_TIME: TimeSignature = { beats: 4, unit: 4 };

/** Note values a time signature may count in. */
export const TIME_UNITS: readonly number[] = [2, 4, 8, 16];

/**
 * How long a bar of a time signature lasts.
 *
 * @example inBeats(barOf({ beats: 3 })); // 3
 */
export const barOf = ({ beats }: Pick<TimeSignature, 'beats'>): Beats => beats * BEAT;

/**
 * How long a quarter note lasts where beats are counted in a unit.
 *
 * @example inBeats(quarterOf(8)); // 2
 */
export const quarterOf = (unit: number): Beats => (BEAT * unit) / 4;

/** A time signature and the beat from which it holds. Beats are counted in the first one's unit. */
export interface MetreChange {
  readonly beat: Beats;
  readonly time: TimeSignature;
}

/** Where a bar lies, counted in the first time signature; a pick-up is bar 0 and begins below 0. */
interface BarSpan {
  readonly number: number;
  readonly beat: Beats;
  readonly beats: Beats;
  readonly time: TimeSignature;
}

/**
 * Bars from the pick-up on until they hold `beats`, each by the time signature that holds there.
 *
 * @example barsOf({ beats: 3, unit: 4 }, [], 6 * BEAT, BEAT).map(({ beat }) => inBeats(beat)); // [-1,0,3]
 */
export function barsOf(
  time: TimeSignature,
  changes: readonly MetreChange[],
  beats: Beats,
  pickUp: Beats = 0,
): readonly BarSpan[] {
  const bars: BarSpan[] = pickUp > 0 ? [{ number: 0, beat: -pickUp, beats: pickUp, time }] : [];
  let beat: Beats = 0;
  let here = time;
  let next = 0;
  do {
    while (next < changes.length && at(changes, next).beat <= beat) {
      here = at(changes, next).time;
      next += 1;
    }
    const length = Math.round((barOf(here) * time.unit) / here.unit);
    bars.push({ number: bars.length + (pickUp > 0 ? 0 : 1), beat, beats: length, time: here });
    beat += length;
  } while (beat < beats);
  return bars;
}

/**
 * Whether a moment falls on a beat.
 *
 * @example
 * onBeat(3 * BEAT); // true
 * onBeat(BEAT / 2); // false
 */
export const onBeat = (moment: Beats): boolean => moment % BEAT === 0;

/** A tempo tapped by hand. */
import { withinTempo } from '$core/time/tempo';

/** Taps further apart than this begin anew, in milliseconds. */
const PATIENCE = 2_500;
const TAPS = 6;

/** The tempo of the taps so far, in beats a minute; null until the second. Times are in milliseconds. */
export function tapped(taps: readonly number[]): number | null {
  const [first] = taps;
  const last = taps.at(-1);
  if (first === undefined || last === undefined || taps.length < 2) return null;
  const bpm = (60_000 * (taps.length - 1)) / (last - first);
  return Math.round(withinTempo(bpm));
}

/** The taps with another one; those before a pause are forgotten. */
export function withTap(taps: readonly number[], now: number): readonly number[] {
  const last = taps.at(-1);
  const kept = last !== undefined && now - last > PATIENCE ? [] : taps;
  return [...kept, now].slice(-TAPS);
}

/** A short room, made and not recorded: noise that fades, its high notes first. */
import { seeded } from '$core/random';
import type { Seconds } from '$core/time/units';

/** How long it rings until it is 60 dB softer, and how long before the first of it comes back. */
const RINGS: Seconds = 0.45;
const BEFORE: Seconds = 0.008;
/** How much of each sample the one before it keeps, at the beginning and at the end: walls swallow treble. */
const DULL = { from: 0.35, to: 0.85 } as const;

/** The room's answer to a click, left and right, of unit energy each. */
export function roomSamples(
  rate: number,
): readonly [Float32Array<ArrayBuffer>, Float32Array<ArrayBuffer>] {
  const ear = (seed: number) => {
    const chance = seeded(seed);
    const length = Math.round((BEFORE + RINGS) * rate);
    const first = Math.round(BEFORE * rate);
    const samples = new Float32Array(length);
    let last = 0;
    for (let index = first; index < length; index++) {
      const share = (index - first) / (length - first);
      const dull = DULL.from + (DULL.to - DULL.from) * share;
      last = dull * last + (1 - dull) * (2 * chance() - 1);
      samples[index] = last * 10 ** (-3 * share);
    }
    const energy = Math.sqrt(samples.reduce((sum, one) => sum + one * one, 0));
    return samples.map((one) => one / energy);
  };
  return [ear(11), ear(12)];
}

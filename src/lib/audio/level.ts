/** The level of what is rendered to a file: its loudness, and peaks that a limiter keeps under a ceiling. */
import { amplitudeOf, loudnessOf, truePeakOf } from '$core/listening/loudness';
import { range } from '$core/lists';

/** What files are brought to (EBU R 128 in its streaming use), and what no peak passes, in dB. */
export const FILE_LOUDNESS = -18;
export const FILE_PEAK = -1;

/** Samples whose gain is reckoned at once; blocks a peak is seen ahead and held, and over which gains move. */
const BLOCK = 64;
const AHEAD = 12;
const SMOOTH = 8;
/** How often it is turned up anew at the most, and how near is near enough, in LU. */
const TIMES = 3;
const CLOSE = 0.05;
/** Peaks between the samples may be so much higher. */
const BETWEEN = 0.97;

/** Turns down what would pass a ceiling, gently before and after it. */
function limit(channels: readonly Float32Array[], ceiling: number): void {
  const length = channels[0]?.length ?? 0;
  const needed = range(0, Math.ceil(length / BLOCK)).map((block) => {
    let peak = 0;
    for (const samples of channels)
      for (let index = block * BLOCK; index < Math.min(length, (block + 1) * BLOCK); index++)
        peak = Math.max(peak, Math.abs(samples[index] as number));
    return Math.min(1, (BETWEEN * ceiling) / Math.max(peak, Number.MIN_VALUE));
  });
  if (needed.every((gain) => gain === 1)) return;
  const held = needed.map((_, block) =>
    Math.min(...needed.slice(Math.max(0, block - AHEAD), block + AHEAD + 1)),
  );
  const gains = held.map((_, block) => {
    const near = held.slice(Math.max(0, block - SMOOTH), block + SMOOTH + 1);
    return near.reduce((sum, gain) => sum + gain, 0) / near.length;
  });
  for (const samples of channels)
    for (let index = 0; index < length; index++) {
      // From the middle of a block to the middle of the next.
      const place = Math.max(0, index / BLOCK - 0.5);
      const block = Math.floor(place);
      const from = gains[block] ?? 1;
      const to = gains[block + 1] ?? from;
      samples[index] = (samples[index] as number) * (from + (place - block) * (to - from));
    }
}

/** Brings channels to the loudness of a file under the ceiling of its peaks; silence stays. */
export function levelled(channels: readonly Float32Array[], rate: number): void {
  const ceiling = amplitudeOf(FILE_PEAK);
  const turn = (gain: number) => {
    for (const samples of channels)
      for (let index = 0; index < samples.length; index++)
        samples[index] = gain * (samples[index] as number);
  };
  // What the limiter takes away is made up for.
  for (let time = 0; time < TIMES; time++) {
    const loudness = loudnessOf(channels, rate);
    if (loudness === -Infinity) return;
    if (time > 0 && loudness > FILE_LOUDNESS - CLOSE) break;
    turn(amplitudeOf(FILE_LOUDNESS - loudness));
    limit(channels, ceiling);
  }
  const peak = truePeakOf(channels);
  if (peak > ceiling) turn(ceiling / peak);
}

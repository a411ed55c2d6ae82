/**
 * Loudness as broadcasters measure it, and true peaks: ITU-R BS.1770-4 and EBU R 128. A shelf and a high pass
 * stand for head and ear, blocks of 400 ms are averaged by power, silence and what lies 10 LU below the rest
 * is left out.
 */
import { range } from '../lists';

/** Coefficients of a filter of second order: b0, b1, b2, a1, a2. */
type Biquad = readonly [number, number, number, number, number];

/** The two filters at a rate, by the analogue prototypes of BS.1770 (in the form of De Man, 2014). */
function weighting(rate: number): readonly [Biquad, Biquad] {
  const shelf = { hertz: 1681.974450955533, gain: 3.999843853973347, q: 0.7071752369554196 };
  const pass = { hertz: 38.13547087602444, q: 0.5003270373238773 };
  const k = Math.tan((Math.PI * shelf.hertz) / rate);
  const high = 10 ** (shelf.gain / 20);
  const band = high ** 0.4996667741545416;
  const a0 = 1 + k / shelf.q + k * k;
  const first: Biquad = [
    (high + (band * k) / shelf.q + k * k) / a0,
    (2 * (k * k - high)) / a0,
    (high - (band * k) / shelf.q + k * k) / a0,
    (2 * (k * k - 1)) / a0,
    (1 - k / shelf.q + k * k) / a0,
  ];
  const j = Math.tan((Math.PI * pass.hertz) / rate);
  const c0 = 1 + j / pass.q + j * j;
  return [first, [1, -2, 1, (2 * (j * j - 1)) / c0, (1 - j / pass.q + j * j) / c0]];
}

function filtered(samples: Float32Array, [b0, b1, b2, a1, a2]: Biquad): Float32Array {
  const out = new Float32Array(samples.length);
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  for (let index = 0; index < samples.length; index++) {
    const x = samples[index] as number;
    const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
    [x2, x1, y2, y1] = [x1, x, y1, y];
    out[index] = y;
  }
  return out;
}

const BLOCK = 0.4;
const HOP = 0.1;
const SILENT = -70;
const RELATIVE = -10;
/** Decibels as a factor of amplitude. */
export const amplitudeOf = (decibels: number): number => 10 ** (decibels / 20);

const lufs = (power: number): number => -0.691 + 10 * Math.log10(power);
const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/**
 * The loudness of a whole recording in LUFS; −Infinity for silence. Channels are left and right, or one alone.
 *
 * @example loudnessOf([left, right], 48_000) // −23.0 for a sine of 1 kHz whose peaks are −23 dB
 */
export function loudnessOf(channels: readonly Float32Array[], rate: number): number {
  const [shelf, pass] = weighting(rate);
  const heard = channels.map((samples) => filtered(filtered(samples, shelf), pass));
  const length = heard[0]?.length ?? 0;
  const hop = Math.round(HOP * rate);
  const hops = Math.floor(length / hop);
  // Power of every hop, of which four make a block.
  const powers = range(0, hops).map((which) => {
    let sum = 0;
    for (const samples of heard)
      for (let index = which * hop; index < (which + 1) * hop; index++)
        sum += (samples[index] as number) ** 2;
    return sum / hop;
  });
  const size = Math.round(BLOCK / HOP);
  const blocks = range(0, Math.max(0, hops - size + 1)).map((which) =>
    mean(powers.slice(which, which + size)),
  );
  const loud = blocks.filter((power) => lufs(power) > SILENT);
  if (loud.length === 0) return -Infinity;
  const gate = lufs(mean(loud)) + RELATIVE;
  return lufs(mean(loud.filter((power) => lufs(power) > gate)));
}

/** How many samples lie between two, and how far the interpolation reaches. */
const OVER = 4;
const REACH = 12;

/** The highest peak between the samples too, as a factor of full scale (BS.1770-4, annex 2). */
export function truePeakOf(channels: readonly Float32Array[]): number {
  const taps = range(1, OVER).map((phase) =>
    range(1 - REACH, REACH + 1).map((tap) => {
      const x = phase / OVER - tap;
      return (
        (Math.sin(Math.PI * x) / (Math.PI * x)) * Math.cos((Math.PI * x) / (2 * REACH + 1)) ** 2
      );
    }),
  );
  let peak = 0;
  for (const samples of channels) {
    for (let index = 0; index < samples.length; index++) {
      const here = Math.abs(samples[index] as number);
      if (here > peak) peak = here;
      // Between soft samples no peak hides that matters.
      if (here < 0.5 * peak) continue;
      for (const weights of taps) {
        let sum = 0;
        for (let tap = 0; tap < weights.length; tap++)
          sum += (weights[tap] as number) * (samples[index + tap + 1 - REACH] ?? 0);
        if (Math.abs(sum) > peak) peak = Math.abs(sum);
      }
    }
  }
  return peak;
}

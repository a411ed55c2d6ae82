/** How much of each frequency a stretch of sound holds. */
import FFT from 'fft.js';
import { range } from '../lists';

interface Spectrum {
  /** Bins from 0 Hz up to half the rate. */
  readonly bins: number;
  /** Amplitudes of samples about a middle; a sine of full scale is 1. Overwritten by the next. */
  of(samples: Float32Array): Float32Array;
}

/** Spectra of so many samples under a Hann window, in a transform of `size` (a power of two). */
export function spectra(length: number, size: number): Spectrum {
  const fft = new FFT(size);
  const hann = Float32Array.from(
    range(0, length),
    (index) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (index + 0.5)) / length),
  );
  const given = new Float64Array(size);
  const out = fft.createComplexArray();
  const bins = size / 2;
  const amplitudes = new Float32Array(bins);
  return {
    bins,
    of(samples) {
      for (let index = 0; index < length; index++)
        given[index] = (samples[index] as number) * (hann[index] as number);
      fft.realTransform(out, given as unknown as number[]);
      for (let bin = 0; bin < bins; bin++) {
        const re = out[2 * bin] as number;
        const im = out[2 * bin + 1] as number;
        amplitudes[bin] = (4 / length) * Math.sqrt(re * re + im * im);
      }
      return amplitudes;
    },
  };
}

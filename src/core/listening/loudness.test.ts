import { describe, expect, test } from 'vitest';
import { loudnessOf, truePeakOf } from './loudness';

const RATE = 48_000;
const sine = (hertz: number, decibels: number, seconds: number, rate = RATE, phase = 0) =>
  Float32Array.from(
    { length: seconds * rate },
    (_, index) => 10 ** (decibels / 20) * Math.sin((2 * Math.PI * hertz * index) / rate + phase),
  );
const joined = (...parts: readonly Float32Array[]): Float32Array => {
  const whole = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0));
  let from = 0;
  for (const part of parts) {
    whole.set(part, from);
    from += part.length;
  }
  return whole;
};
const stereo = (samples: Float32Array, rate = RATE) => loudnessOf([samples, samples], rate);

describe('loudness', () => {
  // The first cases of EBU Tech 3341.
  test.each([-23, -33])('of a sine of 1 kHz at %i dB in both channels is as many LUFS', (level) => {
    expect(stereo(sine(1000, level, 10))).toBeCloseTo(level, 1);
  });
  test.each([32_000, 44_100, 96_000])('is the same at %i Hz', (rate) => {
    expect(stereo(sine(1000, -23, 5, rate), rate)).toBeCloseTo(-23, 1);
  });
  test('of one channel alone is 3 LU less; of silence none', () => {
    expect(loudnessOf([sine(1000, -23, 5)], RATE)).toBeCloseTo(-26, 1);
    expect(stereo(new Float32Array(RATE))).toBe(-Infinity);
  });
  test('leaves out what lies far below the rest', () => {
    const quiet = sine(1000, -36, 10);
    expect(stereo(joined(quiet, sine(1000, -23, 60), quiet))).toBeCloseTo(-23, 1);
    expect(stereo(joined(sine(1000, -72, 10), sine(1000, -23, 20)))).toBeCloseTo(-23, 1);
  });
  test('weighs low notes less, and high ones more', () => {
    expect(stereo(sine(40, -23, 5))).toBeLessThan(-24.5);
    expect(stereo(sine(6000, -23, 5))).toBeGreaterThan(-20.5);
  });
});

describe('true peaks', () => {
  test('lie between the samples too', () => {
    // A quarter of the rate, at 45 degrees: each sample is 3 dB below the peak.
    const hidden = sine(RATE / 4, 0, 0.1, RATE, Math.PI / 4);
    expect(Math.max(...hidden)).toBeCloseTo(0.707, 2);
    expect(truePeakOf([hidden])).toBeGreaterThan(0.97);
    expect(truePeakOf([hidden])).toBeLessThan(1.05);
  });
  test('are the highest of any channel', () => {
    expect(truePeakOf([sine(1000, -20, 0.1), sine(1000, -6, 0.1)])).toBeCloseTo(0.501, 2);
    expect(truePeakOf([new Float32Array(10)])).toBe(0);
  });
});

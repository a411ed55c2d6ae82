import { beforeAll, describe, expect, test } from 'vitest';
import { loudnessOf, truePeakOf } from '$core/listening/loudness';
import { FEEL_KINDS } from '$core/time/feel';
import { decodedSamples, mixed, partsOf, RATE } from '$tests/mixdown';
import { linesOf } from '$tests/lines';
import { LOUDNESS, SOFTER } from './balance';
import { FILE_LOUDNESS, FILE_PEAK, levelled } from './level';
import { DEFAULT_MIX, gainsOf } from './mix';
import { lineEvents } from './programme';

let samples: Awaited<ReturnType<typeof decodedSamples>>;
beforeAll(async () => {
  samples = await decodedSamples();
});

const gains = gainsOf({ ...DEFAULT_MIX, master: 1 }).parts;
const decibels = (factor: number) => 20 * Math.log10(factor);
const both = (channel: Float32Array) => loudnessOf([channel, channel], RATE);

describe.each(FEEL_KINDS)('a band in %s', (kind) => {
  test('has its parts as loud as they are to be, and comes to the loudness of a file', () => {
    const parts = partsOf(kind, samples);
    const loudness = (part: 'bass' | 'comp' | 'drums') => {
      const channel = parts.get(part);
      return channel ? both(channel) + decibels(gains[part]) : -Infinity;
    };
    for (const part of ['bass', 'comp', 'drums'] as const) {
      const wanted = part === 'drums' ? (SOFTER[kind] ?? LOUDNESS.drums) : LOUDNESS[part];
      expect(Math.abs(loudness(part) - wanted), part).toBeLessThan(1.5);
    }
    const length = Math.max(...[...parts.values()].map((one) => one.length));
    const whole = new Float32Array(length);
    for (const [part, channel] of parts) {
      const gain = gains[part as 'bass' | 'comp' | 'drums'];
      channel.forEach((value, index) => (whole[index] = (whole[index] ?? 0) + gain * value));
    }
    const file = [whole, whole.slice()];
    levelled(file, RATE);
    expect(Math.abs(loudnessOf(file, RATE) - FILE_LOUDNESS)).toBeLessThan(0.5);
    expect(decibels(truePeakOf(file))).toBeLessThan(FILE_PEAK + 0.1);
  });
});

test('a line lies a little over the band', () => {
  const lines = linesOf('bop', 3, 'eighths').map(({ exercise }) => {
    const channel = mixed(lineEvents(exercise.passage), 140, samples);
    return both(channel) + decibels(gains.line);
  });
  for (const one of lines) expect(Math.abs(one - LOUDNESS.line)).toBeLessThan(1.6);
});

test('silence stays, and a lone peak is kept under the ceiling', () => {
  const silent = [new Float32Array(RATE)];
  levelled(silent, RATE);
  expect(Math.max(...(silent[0] ?? []))).toBe(0);
  const click = new Float32Array(2 * RATE);
  for (let index = 0; index < click.length; index++)
    click[index] = index === RATE ? 1 : 0.01 * Math.sin(index / 5);
  levelled([click], RATE);
  expect(decibels(truePeakOf([click]))).toBeLessThan(FILE_PEAK + 0.1);
});

import wavefile from 'wavefile';
import { describe, expect, test } from 'vitest';
import { at, range } from '../../lists';
import { readWav } from './wav';

const soft = range(0, 400).map((index) => 0.25 * Math.sin(index / 10));
const loud = range(0, 400).map((index) => 0.5 * Math.cos(index / 10));

/** A WAV file of samples from −1 to 1. */
function wav(channels: readonly (readonly number[])[], rate: number, depth: string): Uint8Array {
  const full = depth.includes('f') || depth === '64' ? 1 : 2 ** (Number(depth) - 1) - 1;
  const file = new wavefile.WaveFile();
  const scaled = channels.map((one) => one.map((value) => value * full));
  file.fromScratch(channels.length, rate, depth, channels.length === 1 ? at(scaled, 0) : scaled);
  return file.toBuffer();
}

describe('a WAV file', () => {
  test.each(['16', '24', '32', '32f', '64'])('of %s bits is read, mono and stereo', (depth) => {
    for (const channels of [[loud], [loud, soft], [soft, loud]]) {
      const read = readWav(wav(channels, 48_000, depth));
      if (!read.ok) throw new Error(read.message);
      expect(read.recording.rate).toBe(48_000);
      expect(read.recording.samples).toHaveLength(400);
      // Of two channels the louder is taken.
      read.recording.samples.forEach((value, index) => {
        expect(Math.abs(value - at(loud, index))).toBeLessThan(1e-3);
      });
    }
  });

  test.each([
    ['not a WAV file', new TextEncoder().encode('RIFF and nothing more')],
    ['not a WAV file', new Uint8Array()],
    ['not a WAV file', wav([loud], 44_100, '16').subarray(0, 30)],
    ['16, 24 or 32 bits', wav([loud.map((value) => value + 1)], 44_100, '8')],
    ['one channel or two', wav([loud, loud, loud], 44_100, '16')],
    ['8 to 96', wav([loud], 192_000, '16')],
    ['8 to 96', wav([loud], 4_000, '16')],
  ])('that is %s is refused', (words, bytes) => {
    const read = readWav(bytes);
    expect(read.ok ? '' : read.message).toContain(words);
  });
});

import { expect, test } from 'vitest';
import { range } from '$core/lists';
import { readWav } from '$core/formats/sound/wav';
import { wavOf } from './wav';

test.each([1, 2])(
  '%i channels that are written are read again, what is too loud cut off',
  (count) => {
    const samples = Float32Array.from([0, 0.5, -0.5, 1, -1, 3, -3]);
    const bytes = wavOf(
      range(0, count).map(() => samples),
      44_100,
    );
    expect(bytes).toHaveLength(44 + 2 * count * samples.length);
    const read = readWav(bytes);
    if (!read.ok) throw new Error(read.message);
    expect(read.recording.rate).toBe(44_100);
    const full = (2 ** 15 - 1) / 2 ** 15;
    expect([...read.recording.samples]).toEqual([0, 0.5 - 2 ** -15, -0.5, full, -1, full, -1]);
  },
);

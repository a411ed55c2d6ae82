import { expect, test } from 'vitest';
import { chartOf } from '$tests/laws';
import { NEW_CHART } from './newChart';

test('a new chart can be read, and is a section of four bars', () => {
  const chart = chartOf(NEW_CHART);
  expect([chart.bars.length, chart.chords.length, chart.source.tempo]).toEqual([4, 4, 100]);
});

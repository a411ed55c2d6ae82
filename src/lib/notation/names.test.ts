import { describe, expect, test } from 'vitest';
import { at } from '$core/lists';
import { NAME_GAP, standApart } from './names';

const named = (...names: readonly (readonly [x: number, width: number])[]) =>
  names.map(([x, width]) => ({ text: '', x, width }));

describe('the names of the chords over a bar', () => {
  test('stand at their beats where there is room', () => {
    expect(standApart(named([20, 50], [76, 40]), 10, 116)).toEqual({ places: [20, 76], scale: 1 });
  });

  test('go back from the end of the bar, and from each other', () => {
    const { places } = standApart(named([20, 50], [75, 40]), 10, 114);
    expect(places).toEqual([74 - NAME_GAP - 50, 74]);
  });

  test('do not go back over the beginning of the bar: those behind go on instead', () => {
    const { places } = standApart(named([100, 60], [130, 40]), 100, 250);
    expect(places).toEqual([100, 160 + NAME_GAP]);
  });

  test('are written smaller where the bar is too narrow for all', () => {
    const names = named([100, 60], [130, 60], [150, 60]);
    const { places, scale } = standApart(names, 100, 100 + (180 + 2 * NAME_GAP) / 2);
    expect(scale).toBe(0.5);
    expect(places).toEqual([100, 130 + NAME_GAP / 2, 160 + NAME_GAP]);
  });

  test('never overlap, and never leave the bar, wherever their beats are', () => {
    const widths = [31, 84, 47, 67];
    for (let seed = 0; seed < 400; seed += 1) {
      const count = 1 + (seed % 4);
      const bar = { from: 7, to: 7 + 40 + (seed % 60) * 5 };
      const names = widths.slice(0, count).map((width, index) => ({
        text: '',
        width,
        x: bar.from + ((bar.to - bar.from) * (index + ((seed * 7) % 11) / 11)) / count,
      }));
      const { places, scale } = standApart(names, bar.from, bar.to);
      let last = bar.from;
      for (const [index, { width }] of names.entries()) {
        expect(at(places, index)).toBeGreaterThanOrEqual(last - 1e-9);
        last = at(places, index) + (width + NAME_GAP) * scale;
      }
      expect(last - NAME_GAP * scale).toBeLessThanOrEqual(bar.to + 1e-9);
    }
  });

  test('are none where no chord comes', () => {
    expect(standApart([], 0, 100)).toEqual({ places: [], scale: 1 });
  });
});

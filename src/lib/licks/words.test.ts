import { describe, expect, test } from 'vitest';
import { chartOf } from '$tests/laws';
import { barsOf, tagsIn, withBars } from './words';

const CHART = 'key: C\ntempo: 90\n| Dm7 | G7 |\n| Cmaj7 | % |';

describe('the chords of a lick', () => {
  test('stand in one line without their heads, and are the same chords when typed so', () => {
    expect(barsOf(CHART)).toBe('| Dm7 | G7 | ↵ | Cmaj7 | % |');
    const typed = withBars(CHART, barsOf(CHART));
    const symbols = (text: string) => chartOf(text).chords.map(({ chord }) => chord.symbol);
    expect(symbols(typed)).toEqual(symbols(CHART));
    expect(typed).toBe(CHART);
    expect(withBars('| C | // slow\n| F |', '| C | // slow ↵ | G |')).toBe('| C | // slow\n| G |');
    expect(chartOf(typed).source).toMatchObject({ tempo: 90, key: { tonic: 0 } });
  });

  test('need no bar lines', () => {
    expect(withBars(CHART, ' Am7 ')).toBe('key: C\ntempo: 90\n| Am7 |');
    expect(withBars('| C |', '| Am7 | D7')).toBe('| Am7 | D7');
    expect(withBars('| C |', '')).toBe('|  |');
  });
});

test('tags stand between commas, each once, as many and as long as a lick may have', () => {
  expect(tagsIn(' blues,slow , ,blues')).toEqual(['blues', 'slow']);
  expect(tagsIn('x'.repeat(60))).toEqual(['x'.repeat(40)]);
  const many = Array.from({ length: 20 }, (_, index) => `tag ${index}`);
  expect(tagsIn(many.join())).toEqual(many.slice(0, 12));
});

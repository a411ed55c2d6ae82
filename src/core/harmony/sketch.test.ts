import { describe, expect, it } from 'vitest';
import { readChart } from '../chart/form';
import { sketchOf } from './sketch';

function sketch(text: string) {
  const result = readChart(text);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return sketchOf(result.chart);
}

describe('the sketch of a form', () => {
  it('has a stroke for each bar as played, with its chords counted', () => {
    expect(sketch('|: Gm7 C7 | Fmaj7 :|\n| N.C. | F6 |').bars).toEqual([2, 1, 2, 1, 0, 1]);
  });

  it('begins a section anew each time through', () => {
    const { sections } = sketch('[A] x2\n| Fmaj7 | Gm7 C7 |\n[B]\n| Bb7 | F7 |');
    expect(sections).toEqual([
      { name: 'A', from: 1, to: 2 },
      { name: 'A', from: 3, to: 4 },
      { name: 'B', from: 5, to: 6 },
    ]);
  });

  it('marks cadences by the bars they span, and key areas only where there are several', () => {
    const one = sketch('key: F\n| Gm7 | C7 | Fmaj7 | % |');
    expect(one.cadences).toContainEqual({ from: 1, to: 4 });
    expect(one.areas).toEqual([]);
    const two = sketch(
      'key: F\n[A]\n| Gm7 | C7 | Fmaj7 | % |\n[B] key: Db\n| Ebm7 | Ab7 | Dbmaj7 | % |',
    );
    expect(two.areas.map(({ from, to, key }) => [from, to, key])).toEqual([
      [1, 4, 'F'],
      [5, 8, 'Db'],
    ]);
  });

  it('tells the first chords that differ as they are written', () => {
    expect(sketch('| Am7 | D9 | Gmaj7 | % |').first).toEqual(['Am7', 'D9', 'Gmaj7']);
  });
});

import { expect, test } from 'vitest';
import { readChart } from '$core/chart/form';
import { namedByChords, typedLine } from './typed';

test.each([
  ['Am F C G', '| Am | F | C | G |', '| Am F C G |'],
  ['  gm7  c7 ', '| gm7 | c7 |', '| gm7 c7 |'],
  ['C/Bb F/A', '| C/Bb | F/A |', '| C/Bb F/A |'],
  ['A7 % D7 %', '| A7 | % | D7 | % |', '| A7 % D7 % |'],
])('“%s” is a bar for each chord, or one bar', (typed, apart, together) => {
  expect(typedLine(typed, false)).toEqual({ text: apart, loose: true });
  expect(typedLine(typed, true)).toEqual({ text: together, loose: true });
  for (const text of [apart]) expect(readChart(text).ok).toBe(true);
});

test.each(['Gm7 C7 | Fmaj7', 'Am', '', 'title: Am F', 'Am F\nC G', 'Am / F', 'Am Hz9', '[A] Am F'])(
  '“%s” stays as it is',
  (typed) => {
    expect(typedLine(typed, false)).toEqual({ text: typed, loose: false });
  },
);

test('a chart without a title is named by its first chords, and only then', () => {
  expect(namedByChords('| Am | F | C | G | Dm |')).toBe('title: Am F C G\n| Am | F | C | G | Dm |');
  expect(namedByChords('title: Lamps\n| Am |')).toBe('title: Lamps\n| Am |');
  expect(namedByChords('| Hz |')).toBe('| Hz |');
  const named = readChart(namedByChords('key: C\n| C F |'));
  expect(named.ok && named.chart.source.title).toBe('C F');
});

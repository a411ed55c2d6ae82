import { describe, expect, test } from 'vitest';
import { lineStyleOf } from '../exercises/lineOver';
import { at } from '../lists';
import { halfSteps, intervalBetween, type Note } from '../notes/notes';
import { LINE_STYLES, rowOf, SIZES, STYLE_ROWS } from './styles';
import { linesOf, meansOf, settingOf } from '$tests/lines';

const MINOR_THIRD = 3;
const styleOf = (text: string) => lineStyleOf(settingOf(text, 0).request);

describe('the style of a line', () => {
  test.each([
    ['feel: swing\n| Dm7 | G7 | Cmaj7 | % |', 'bop'],
    ['feel: bossa nova\n| Dm7 | G7 | Cmaj7 | % |', 'bossa'],
    ['feel: ballad\n| Dm7 | G7 | Cmaj7 | % |', 'ballad'],
    ['feel: funk\n| C9 | F9 |', 'funk'],
    ['feel: modal\n| Dm7 | Ebm7 |', 'modal'],
    ['feel: rock\n| C | F |', 'rock'],
    ['feel: folk\n| C | F |', 'pop'],
    ['feel: shuffle\n| C | F |', 'blues'],
    ['| C | G | Am | F |', 'pop'],
    ['| Dm7 | G7 | Cmaj7 | % |', 'bop'],
    ['key: C\n| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |', 'blues'],
    ['key: C\nfeel: swing\n| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |', 'blues'],
    ['key: C\nfeel: rock\n| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |', 'rock'],
  ] as const)('%j is played as %s', (text, style) => {
    expect(styleOf(text)).toBe(style);
  });

  test('is the one that is asked for', () => {
    const { request } = settingOf('feel: swing\n| Dm7 | G7 |', 0, { style: 'rock' });
    expect(lineStyleOf(request)).toBe('rock');
  });

  test('every row shares its moves out, and adds nothing where only the chosen is played', () => {
    for (const style of LINE_STYLES) {
      const { sizes } = STYLE_ROWS[style];
      expect(SIZES.reduce((sum, size) => sum + sizes[size], 0)).toBeCloseTo(1, 1);
      expect(rowOf({ style, plain: true })).toMatchObject({ chromatic: 0, blue: null });
    }
  });

  test('a listener tells them apart', () => {
    const of = Object.fromEntries(
      LINE_STYLES.map((style) => [style, meansOf(linesOf(style, 6, 'eighths'))]),
    );
    const figure = (style: string, name: string) => of[style]?.[name] ?? Number.NaN;
    // Hooks repeat and lie on strings that bend; bop moves by half steps, modal lines by fourths.
    for (const hooked of ['blues', 'rock', 'pop', 'funk']) {
      expect(figure(hooked, 'again')).toBeGreaterThan(figure('bop', 'again'));
      expect(figure(hooked, 'low')).toBeLessThan(figure('bop', 'low'));
    }
    expect(figure('bop', 'chromatic')).toBeGreaterThan(figure('bossa', 'chromatic'));
    expect(figure('bop', 'half')).toBeGreaterThan(figure('modal', 'half'));
    expect(figure('modal', 'fourth')).toBeGreaterThan(figure('bop', 'fourth'));
    expect(figure('blues', 'gestures')).toBeGreaterThan(figure('pop', 'gestures'));
    expect(figure('bop', 'density')).toBeGreaterThan(figure('ballad', 'density'));
    expect(figure('rock', 'chromatic')).toBe(0);
  });

  test('a blues has the blue third over its I, rising to the third, and never falling from it', () => {
    const lines = linesOf('blues', 8, 'eighths');
    let blue = 0;
    let risen = 0;
    for (const { chart, exercise } of lines) {
      const { notes } = exercise.passage;
      for (const [place, one] of notes.entries()) {
        const { chord } = at(chart.chords, one.chord ?? 0);
        const above = (played: Note) => halfSteps(intervalBetween(chord.root, played));
        if (chord.quality.family !== 'dominant' || above(one.note) !== MINOR_THIRD) continue;
        blue += 1;
        const next = notes[place + 1];
        if (next && above(next.note) === MINOR_THIRD + 1) risen += 1;
      }
    }
    expect(blue).toBeGreaterThan(20);
    expect(risen / blue).toBeGreaterThan(0.2);
  });
});

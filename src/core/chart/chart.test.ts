import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { nextChange, readChart } from './form';
import { parseChart } from './parse';
import { toNumerals, toSymbols, transposeChart, writesNumerals } from './rewrite';
import { summariseChart, withHeader, withTitle } from './summary';
import { note } from '../notes/notes';
import { parseKey } from '../keys/keys';
import { chartOf as play } from '$tests/laws';
import { inBeats } from '../time/units';

/** Symbols by played bar: `Am|D9 G`. */
const bars = (text: string) => {
  const chart = play(text);
  return chart.bars
    .map((bar) =>
      chart.chords
        .filter((chord) => chord.bar === bar.number)
        .map(({ chord }) => chord.symbol)
        .join(' '),
    )
    .join('|');
};

function problem(text: string) {
  const result = readChart(text);
  if (result.ok || !result.problems[0]) throw new Error(`no problem in ${text}`);
  return result.problems[0];
}

describe('headers', () => {
  test('are read in any order and case', () => {
    const { source } = play(
      'Tempo: 96\nTITLE: Two Spoons\nkey: F#m\ntime: 6/8\nfeel: swing\n| F#m |',
    );
    expect(source).toMatchObject({
      title: 'Two Spoons',
      tempo: 96,
      feel: 'swing',
      time: { beats: 6, unit: 8 },
      key: parseKey('F# minor'),
    });
  });

  test.each([
    ['key: X\n| C |', 'X', 1, 6],
    ['title: x\ntime: 5/3\n| C |', '5/3', 2, 7],
    ['tempo: fast\n| C |', 'fast', 1, 8],
    ['tempo: 900\n| C |', '900', 1, 8],
    ['mood: blue\n| C |', 'blue', 1, 7],
    ['| C |\ntitle: late', 'title', 2, 1],
  ])('%j is refused at its place', (text, token, line, column) => {
    expect(problem(text)).toMatchObject({ token, line, column });
  });
});

describe('bars', () => {
  test('spaces share a bar equally and slashes lengthen the chord before', () => {
    const { chords } = play('| C | F G | Am / Dm / | C F G | Em / / B7 |');
    expect(chords.map(({ beat, beats }) => [inBeats(beat), inBeats(beats)])).toEqual([
      [0, 4],
      [4, 2],
      [6, 2],
      [8, 2],
      [10, 2],
      [12, 4 / 3],
      [12 + 4 / 3, 4 / 3],
      [12 + 8 / 3, 4 / 3],
      [16, 3],
      [19, 1],
    ]);
  });

  test('percent signs repeat what was heard', () => {
    expect(bars('| C | % | F G | %% |')).toBe('C|C|F G|C|F G');
    expect(bars('|: C | [1] F :| [2] % | G |')).toBe('C|F|C|C|G');
  });

  test('no chord takes its time and holds no chord', () => {
    const chart = play('| C N.C. | NC | F |');
    expect(chart.bars).toHaveLength(3);
    expect(chart.chords.map(({ beat }) => inBeats(beat))).toEqual([0, 8]);
  });

  test('comments and blank lines say nothing', () => {
    expect(bars('# a remark\n\n| C // the home chord\n| G | // C#m7 | F\n')).toBe('C|G');
  });

  test('three-four bars last three beats', () => {
    expect(play('time: 3/4\n| C | F G |').chords.map(({ beat }) => inBeats(beat))).toEqual([
      0, 3, 4.5,
    ]);
  });

  test('spaces inside parentheses belong to the chord', () => {
    expect(bars('| C7(b9, #11) F |')).toBe('C7(b9, #11) F');
  });
});

describe('form', () => {
  test.each([
    ['|: C | F :|', 'C|F|C|F'],
    ['|: C | F :| x3', 'C|F|C|F|C|F'],
    ['| A | B :| C |', 'A|B|A|B|C'],
    ['|: C | F | [1] G :| [2] E |', 'C|F|G|C|F|E'],
    ['|: C | [1,2] F :| [3] G |', 'C|F|C|F|C|G'],
    ['|: C | [1] F :| [2] G :| [3] A |', 'C|F|C|G|C|A'],
    ['|: C :|: F :|', 'C|C|F|F'],
    ['[V] x2\n| C | F |\n[R]\n| G |', 'C|F|C|F|G'],
    ['[V] x2\n| C | [1] F | [2] G |', 'C|F|C|G'],
    ['[V] x2\n|: C :| F |', 'C|C|F|C|C|F'],
    ['C | F\nG', 'C|F|G'],
    ['| C || F |', 'C|F'],
  ])('%j is played %s', (text, expected) => {
    expect(bars(text)).toBe(expected);
  });

  test('bars know their section and the time through it', () => {
    const { bars: played } = play('[V] x2\n| C |\n[R]\n| G |');
    expect(played.map(({ number, section, pass }) => [number, section, pass])).toEqual([
      [1, 0, 1],
      [2, 0, 2],
      [3, 1, 1],
    ]);
  });

  test('a numeral chart is read in its key, and a section may state its own', () => {
    expect(bars('key: Eb\n| ii7 V7/ii | bVII7 #ivo7 | I/3 |')).toBe('Fm7 C7|Db7 Adim7|Eb/G');
    expect(bars('key: C\n[A]\n| I |\n[B] x2 key: Ab\n| ii7 |')).toBe('C|Bbm7|Bbm7');
  });

  test('the next change skips repetitions and goes round the end', () => {
    const chart = play('| C | % | F | C |');
    expect(nextChange(chart, 0)).toBe(2);
    expect(nextChange(chart, 2)).toBe(3);
    expect(nextChange(chart, 3)).toBe(2);
    expect(nextChange(play('| C | C |'), 0)).toBeNull();
  });
});

describe('problems', () => {
  test.each([
    ['title: x\n| Ebmaj7 | Ebmja7 |', 'Ebmja7', 2, 12],
    ['| C | Am F7x |', 'F7x', 1, 10],
    ['| C |  | F |', '|', 1, 8],
    ['| % | C |', '%', 1, 3],
    ['| C | %% |', '%%', 1, 7],
    ['| / C |', '/', 1, 3],
    ['|: C | F |', '|:', 1, 4],
    ['| C % |', '%', 1, 5],
    ['| C | x3 |', 'x3', 1, 7],
    ['| ii7 V7 |', 'ii7', 1, 3],
    ['| [A | C |', '[A | C |', 1, 3],
    ['| C | [2] F |', '[2]', 1, 11],
    [':| C |', ':|', 1, 1],
    ['|: C :| x99', 'x99', 1, 9],
  ])('%j is refused at its place', (text, token, line, column) => {
    expect(problem(text)).toMatchObject({ token, line, column });
    expect(problem(text).message).toMatch(/\.$/u);
  });

  test('every problem is reported, with offsets into the text', () => {
    const text = '| Cq | F |\n| Gz |';
    const result = parseChart(text);
    const problems = result.ok ? [] : result.problems;
    expect(problems.map(({ from, to }) => text.slice(from, to))).toEqual(['Cq', 'Gz']);
  });

  test('an empty chart and an endless one are refused in words', () => {
    expect(problem('title: nothing').message).toContain('no bars');
    expect(problem('[A] x64\n|: C | F :| x64').message).toContain('more than 2048 bars');
    expect(problem('| ' + 'C '.repeat(9000) + '|').message).toContain('at most 4096 chords');
    expect(problem('| C C C |' + ' % |'.repeat(1400)).message).toContain('more than 4096 chords');
    expect(problem('x'.repeat(70_000)).message).toContain('65536');
  });

  test('any text is read or refused, never thrown on', () => {
    const scraps = fc.constantFrom(
      '|',
      '|:',
      ':|',
      '%',
      '%%',
      '/',
      'C',
      'Fm7',
      '[A]',
      '[1]',
      'x2',
      '\n',
      'key: Ab',
      '#',
      '//',
      'ii7',
      '(',
      ']',
      'é',
    );
    fc.assert(
      fc.property(fc.array(scraps, { maxLength: 25 }), (parts) => {
        const result = readChart(parts.join(' '));
        if (result.ok) expect(result.chart.bars.length).toBeGreaterThan(0);
        else expect(result.problems[0]?.line).toBeGreaterThan(0);
      }),
    );
  });
});

describe('what the Book shows', () => {
  test('a chart in the making keeps its title, key and tempo', () => {
    expect(summariseChart('title: Two Spoons\nkey: Eb\ntempo: 80\n| Ebq |')).toEqual({
      title: 'Two Spoons',
      key: 'Eb',
      tempo: 80,
      bars: null,
    });
    expect(summariseChart('| C | F |')).toMatchObject({ title: 'Untitled', bars: 2 });
  });

  test('a title is set where it stands, or added above', () => {
    expect(withTitle('key: C\ntitle: Old\n| C |', 'New')).toBe('key: C\ntitle: New\n| C |');
    expect(withTitle('key: C\n| C |', 'New')).toBe('title: New\nkey: C\n| C |');
    expect(withHeader('title: A\n| C |', 'tempo', '90')).toBe('title: A\ntempo: 90\n| C |');
    expect(withHeader('title: A\nkey: C\n| C |', 'key', null)).toBe('title: A\n| C |');
  });

  test('setting a header changes nothing else', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (title) => {
        const { chords } = play(withTitle('key: C\n| C | F |', title));
        expect(chords).toHaveLength(2);
      }),
    );
  });
});

describe('chords typed in small letters', () => {
  test.each([
    ['| gm7 | bb7 | ebmaj7 | c/e |', 'Gm7 Bb7 Ebmaj7 C/E'],
    ['| a7 | dm | bm7b5 | f#ø |', 'A7 Dm Bm7b5 F#ø'],
  ])('%s is %s', (text, symbols) => {
    const result = readChart(text);
    expect(result.ok && result.chart.chords.map(({ chord }) => chord.symbol).join(' ')).toBe(
      symbols,
    );
    const moved = transposeChart(text, note('C'), note('D')) ?? '';
    const again = transposeChart(moved, note('D'), note('C')) ?? '';
    const back = readChart(again);
    expect(back.ok && back.chart.chords.map(({ chord }) => chord.root)).toEqual(
      result.ok && result.chart.chords.map(({ chord }) => chord.root),
    );
  });

  test('a b alone is asked about, and a numeral stays one', () => {
    const alone = readChart('| b |');
    expect(alone.ok ? '' : alone.problems[0]?.message).toBe(
      '“b” could be the chord B or a flat: write B, or Bb.',
    );
    const numerals = readChart('key: C\n| bVII7 | bII7 | i |');
    expect(numerals.ok && numerals.chart.chords.map(({ chord }) => chord.symbol)).toEqual([
      ...['Bb7', 'Db7', 'Cm'],
    ]);
  });
});

describe('chords by German and sol-fa names, and in figures', () => {
  test.each([
    ['| H7 | E | Fis7 |', 'B7|E|F#7'],
    ['| Do△ | La7 | Rem7 | Sol7 |', 'C△|A7|Dm7|G7'],
    // Do alone is the diminished triad that its letters say.
    ['| Do | D |', 'Do|D'],
    ['[La] | Do | D |', 'Do|D'],
    ['key: F\n| 1 | 6m | 2m7 5⁷ | b7 |', 'F|Dm|Gm7 C7|Eb'],
    // A small b7 is a chord where nothing is in figures.
    ['key: F\n| b7 | F |', 'B7|F'],
    ['key: H moll\n| i | V7 |', 'Bm|F#7'],
  ])('%s', (text, expected) => {
    expect(bars(text)).toBe(expected);
  });

  test('B beside H is asked about, at its place', () => {
    expect(problem('| H7 | Bm7 |')).toMatchObject({ token: 'Bm7', line: 1, column: 8 });
    expect(problem('| H7 | Bm7 |').message).toContain('write Hm7 or Bbm7');
    expect(bars('| H7 | Bbm7 |')).toBe('B7|Bbm7');
  });

  test('figures need a key', () => {
    expect(problem('| 1 | 4 |').message).toContain('key: Eb');
  });

  test.each([
    ['| H7 | E |', '| C#7 | F# |'],
    ['| Sol7 | Do |', '| A7 | D |'],
    ['| gm7 | C7 |', '| Am7 | D7 |'],
    ['key: C\n| 2m7 | 57 |', 'key: D\n| 2m7 | 57 |'],
  ])('%s moves by a whole step', (text, moved) => {
    expect(transposeChart(text, note('C'), note('D'))).toBe(moved);
  });

  test('figures become symbols and stay numerals', () => {
    expect(toSymbols('key: C\n| 2m7 | 5/7 |')).toBe('key: C\n| Dm7 | G/B |');
    expect(toNumerals('key: C\n| 2m7 | rem7 | gm |', { tonic: note('C'), mode: 'major' })).toBe(
      'key: C\n| 2m7 | ii7 | v |',
    );
    expect(writesNumerals('key: C\n| 2m7 |')).toBe(true);
    expect(writesNumerals('key: C\n| Ddim | E |')).toBe(false);
  });
});

import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { note } from '../notes/notes';
import { type BarRange, sectionSpans, sheetBars } from './sheetBars';
import { barsAsText, barsFromText, copyBars, deleteBars, insertBars, moveBars } from './editBars';
import { editChart } from './edit';
import { insertSlot, removeSlot, splitSlot, stretchSlot, typeOver } from './editSlots';
import { removeSection, setEnding, setRepeat, setSection } from './editSections';
import { readChart } from './form';
import { shiftChart, toNumerals, toSymbols, transposeChart } from './rewrite';
import { emptyBar, readLeadSheet, type LeadSheet, writeLeadSheet } from './leadSheet';
import { fromTemplate, TEMPLATES } from './templates';
import { runs } from '$tests/laws';

const SAMPLE = `title: Two Left Boots
key: Bb

# A comment above.
[A] x2
| Bbmaj7 | G7 | Cm7  F7 |  %| // as spaced
[B] key: Eb
|: Ebmaj7 | Ab-6 Db9 | [1] Gm7 C7b9 | F7 :| [2] Fm7 / / Bb7 | Eb6/9 |
`;

const bars = (...texts: string[]) => texts.map((text) => emptyBar([{ text, shares: 1 }]));
const edited = (text: string, edit: (sheet: LeadSheet) => LeadSheet): string => {
  const result = editChart(text, edit);
  if (result === null) throw new Error('unreadable');
  return result;
};
const played = (text: string): string => {
  const result = readChart(text);
  if (!result.ok) throw new Error(`${result.problems[0]?.message} in\n${text}`);
  return result.chart.chords
    .map(({ chord, beat, beats }) => `${beat} ${chord.symbol} ${beats}`)
    .join('|');
};
const symbols = (text: string): string =>
  played(text)
    .replace(/[\d.]+ ([^|]*?) [\d.]+(?=\||$)/gu, '$1')
    .replace(/\|/gu, ' ');

/** Charts of any shape: rows of bars with repeats, endings, sections and comments. */
const someChart = fc
  .array(
    fc.record({
      bars: fc.array(fc.constantFrom('C', 'Fm7 Bb7', 'G7alt', 'Am7 / / D9', 'N.C.', 'F#ø'), {
        minLength: 1,
        maxLength: 5,
      }),
      repeat: fc.constantFrom('none', 'none', 'plain', 'endings', 'thrice'),
      heading: fc.constantFrom('', '', '[A]\n', '[Bridge] x2\n', '[C] key: Ab '),
      comment: fc.constantFrom('', '', ' // hold back'),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((rows) =>
    rows
      .map(({ bars, repeat, heading, comment }, index) => {
        const body = bars.join(' | ');
        const row = {
          none: `| ${body} |`,
          plain: `|: ${body} :|`,
          thrice: `|: ${body} :| x3`,
          endings: `|: ${body} | [1] Dm7 :| [2] Ebmaj7 |`,
        }[repeat];
        // An ending would reach over to what follows: each such row is a section of its own.
        const own = repeat === 'endings' || heading !== '' ? heading || `[S${index}]\n` : '';
        return `${own}${row}${comment}`;
      })
      .join('\n'),
  );

const someRange = fc.tuple(fc.nat(30), fc.nat(6));
const rangeIn = (sheet: LeadSheet, [from, size]: readonly [number, number]): BarRange => {
  const count = sheetBars(sheet).length;
  const first = from % count;
  return { from: first, to: Math.min(count - 1, first + size) };
};

describe('sheets', () => {
  test('an untouched sheet is the very text', () => {
    const sheet = readLeadSheet(SAMPLE);
    expect(sheet && writeLeadSheet(sheet)).toBe(SAMPLE);
  });

  test('a row written anew plays the same', () => {
    fc.assert(
      fc.property(someChart, (text) => {
        const sheet = readLeadSheet(text);
        if (!sheet) throw new Error(text);
        const anew = {
          lines: sheet.lines.map((line) =>
            line.kind === 'row' ? { ...line, source: null } : line,
          ),
        };
        expect(played(writeLeadSheet(anew))).toBe(played(text));
      }),
    );
  });

  test('every edit leaves a chart that can be read, and its comments', () => {
    const edits: readonly ((sheet: LeadSheet, range: BarRange, target: number) => LeadSheet)[] = [
      (sheet, range) => deleteBars(sheet, range),
      (sheet, range, target) => moveBars(sheet, range, { before: target }),
      (sheet, range, target) => copyBars(sheet, range, { after: target }),
      (sheet, range) => setRepeat(sheet, range, 3),
      (sheet, range) => setRepeat(sheet, range, null),
      (sheet, range) => setSection(sheet, range.from, { name: 'New', repeats: 1, key: null }),
      (sheet, range) => removeSection(sheet, range.from),
      (sheet, range) => splitSlot(sheet, range.from, 0),
      (sheet, range) => stretchSlot(sheet, range.to, 0, 2),
      (sheet, range) => typeOver(sheet, range.from, 0, ['E7', 'A7']),
      (sheet, range) => insertBars(sheet, { before: range.from }, bars('Dm7')),
    ];
    fc.assert(
      fc.property(
        someChart,
        fc.constantFrom(...edits),
        someRange,
        fc.nat(30),
        (text, edit, picked, target) => {
          const result = edited(text, (sheet) =>
            edit(sheet, rangeIn(sheet, picked), target % sheetBars(sheet).length),
          );
          expect(() => played(result)).not.toThrow();
          const comments = (of: string) => of.split('// hold back').length;
          expect(comments(result)).toBe(comments(text));
        },
      ),
      runs(150),
    );
  });
});

describe('edits of bars', () => {
  const FOUR = '| C | Am7 | Dm7 | G7 |';

  test('type over, insert, remove, split and stretch chords', () => {
    expect(edited(FOUR, (sheet) => typeOver(sheet, 1, 0, ['A7']))).toBe('| C | A7 | Dm7 | G7 |');
    expect(edited(FOUR, (sheet) => typeOver(sheet, 1, 0, ['Em7', 'A7']))).toBe(
      '| C | Em7 A7 | Dm7 | G7 |',
    );
    expect(edited(FOUR, (sheet) => typeOver(sheet, 1, 0, ['%']))).toBe('| C | % | Dm7 | G7 |');
    expect(edited(FOUR, (sheet) => insertSlot(sheet, 3, 0, 'Db7'))).toBe(
      '| C | Am7 | Dm7 | G7 Db7 |',
    );
    expect(edited('| C F G |', (sheet) => removeSlot(sheet, 0, 1))).toBe('| C G |');
    expect(edited('| C / F |', (sheet) => splitSlot(sheet, 0, 1))).toBe('| C / / / F F |');
    expect(edited('| C F |', (sheet) => stretchSlot(sheet, 0, 0, 2))).toBe('| C / / F |');
  });

  test('a % is written out before it is changed', () => {
    expect(edited('| C F | % |', (sheet) => typeOver(sheet, 1, 1, ['G7']))).toBe('| C F | C G7 |');
  });

  test('only the row that changes is worded anew', () => {
    const result = edited(SAMPLE, (sheet) => typeOver(sheet, 4, 0, ['Eb6']));
    expect(result).toContain('| Bbmaj7 | G7 | Cm7  F7 |  %| // as spaced');
    expect(result).toContain('|: Eb6 | Ab-6 Db9 | [1] Gm7 C7b9 | F7 :| [2] Fm7 / / Bb7 | Eb6/9 |');
  });

  test('inserting before a repeat’s first bar lets the repeat begin with it', () => {
    const result = edited('|: C | F :|', (sheet) => insertBars(sheet, { before: 0 }, bars('G7')));
    expect(result).toBe('|: G7 | C | F :|');
    const behind = edited('|: C | F :|', (sheet) => insertBars(sheet, { after: 1 }, bars('G7')));
    expect(behind).toBe('|: C | F :| G7 |');
  });

  test('deleting hands repeat signs and endings to the neighbours', () => {
    const drop = (text: string, from: number, to = from) =>
      edited(text, (sheet) => deleteBars(sheet, { from, to }));
    expect(drop('|: C | F | G :|', 0)).toBe('|: F | G :|');
    expect(drop('|: C | F | G :| x3', 2)).toBe('|: C | F :| x3');
    expect(drop('|: C | F :| G |', 0, 1)).toBe('| G |');
    expect(drop('|: C | [1] F | G :| [2] D |', 1)).toBe('|: C | [1] G :| [2] D |');
    expect(drop('[A]\n| C |\n[B]\n| F |', 0)).toBe('[B]\n| F |');
    expect(drop('| C | F |', 0, 1)).toBe('| N.C. |');
  });

  test('moves and copies bars, across sections too', () => {
    const move = (spot: Parameters<typeof moveBars>[2]) =>
      edited('[A]\n| C | F |\n[B]\n| G7 | Am7 |', (sheet) =>
        moveBars(sheet, { from: 0, to: 0 }, spot),
      );
    expect(move({ after: 1 })).toBe('[A]\n| F | C |\n[B]\n| G7 | Am7 |');
    expect(move({ before: 2 })).toBe('[A]\n| F |\n[B]\n| C | G7 | Am7 |');
    expect(move({ after: 0 })).toBe('[A]\n| C | F |\n[B]\n| G7 | Am7 |');
    const copied = edited(FOUR, (sheet) => copyBars(sheet, { from: 1, to: 2 }, { after: 3 }));
    expect(copied).toBe('| C | Am7 | Dm7 | G7 | Am7 | Dm7 |');
    const same = edited('| C F | % |', (sheet) =>
      copyBars(sheet, { from: 1, to: 1 }, { after: 1 }),
    );
    expect(same).toBe('| C F | % | C F |');
  });

  test('moving there and back is no change', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 8 }), fc.nat(7), fc.nat(7), (count, from, to) => {
        const text = `| ${Array.from({ length: count }, (_, bar) => 'CDEFGAB'[bar % 7]).join(' | ')} |`;
        const [first, second] = [from % count, to % count];
        const there = edited(text, (sheet) =>
          moveBars(
            sheet,
            { from: first, to: first },
            second > first ? { after: second } : { before: second },
          ),
        );
        const back = edited(there, (sheet) =>
          moveBars(
            sheet,
            { from: second, to: second },
            first > second ? { after: first } : { before: first },
          ),
        );
        expect(back).toBe(text);
      }),
    );
  });

  test('repeats, endings and sections are set and taken away', () => {
    const repeated = edited(FOUR, (sheet) => setRepeat(sheet, { from: 0, to: 3 }, 2));
    expect(repeated).toBe('|: C | Am7 | Dm7 | G7 :|');
    const grown = edited(repeated, (sheet) => insertBars(sheet, { after: 3 }, bars('C6')));
    const both = edited(grown, (sheet) => setEnding(sheet, { from: 3, to: 3 }, [1]));
    expect(both).toBe('|: C | Am7 | Dm7 | [1] G7 :| [2] C6 |');
    expect(symbols(both)).toBe('C Am7 Dm7 G7 C Am7 Dm7 C6');
    expect(edited(both, (sheet) => setRepeat(sheet, { from: 0, to: 4 }, null))).toBe(
      '| C | Am7 | Dm7 | G7 | C6 |',
    );
    const named = edited(FOUR, (sheet) =>
      setSection(sheet, 2, { name: 'B', repeats: 2, key: 'F' }),
    );
    expect(named).toBe('| C | Am7 |\n[B] x2 key: F | Dm7 | G7 |');
    expect(edited(named, (sheet) => removeSection(sheet, 2))).toBe('| C | Am7 |\n| Dm7 | G7 |');
    const spans = sectionSpans(readLeadSheet(named) ?? { lines: [] });
    expect(spans.map(({ from, to }) => [from, to])).toEqual([
      [0, 1],
      [2, 3],
    ]);
  });

  test('copies as text and reads it back, with or without bar lines', () => {
    const sheet = readLeadSheet(SAMPLE);
    const text = sheet ? barsAsText(sheet, { from: 0, to: 3 }) : '';
    expect(text).toBe('| Bbmaj7 | G7 | Cm7 F7 | % |');
    expect(barsFromText(text)?.length).toBe(4);
    expect(barsFromText('Dm7 G7')?.map(({ slots }) => slots.length)).toEqual([2]);
    expect(barsFromText('ii7 | V7 | I')?.length).toBe(3);
    expect(barsFromText('Dm7 Zz')).toBeNull();
    expect(barsFromText('')).toBeNull();
  });
});

describe('transposing', () => {
  test('respells by the interval and keeps the player’s wording', () => {
    expect(transposeChart(SAMPLE, note('Bb'), note('B'))).toBe(`title: Two Left Boots
key: B

# A comment above.
[A] x2
| Bmaj7 | G#7 | C#m7  F#7 |  %| // as spaced
[B] key: E
|: Emaj7 | A-6 D9 | [1] G#m7 C#7b9 | F#7 :| [2] F#m7 / / B7 | E6/9 |
`);
  });

  test('there and back is the very text, for every pair of keys', () => {
    const tonics = ['Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#'].map(
      note,
    );
    for (const to of tonics) {
      const there = transposeChart(SAMPLE, note('Bb'), to) ?? '';
      expect(transposeChart(there, to, note('Bb'))).toBe(SAMPLE);
    }
  });

  test('by half steps the simpler key is taken', () => {
    const up = shiftChart('key: C\n| C | G/B |', 1, { tonic: note('C'), mode: 'major' });
    expect(up).toBe('key: Db\n| Db | Ab/C |');
    expect(shiftChart('| E | B7 |', 1, null)).toBe('| F | C7 |');
    expect(shiftChart('key: Am\n| Am | E7 |', -1, { tonic: note('A'), mode: 'minor' })).toBe(
      'key: G#m\n| G#m | D#7 |',
    );
  });
});

describe('Roman numerals', () => {
  const home = { tonic: note('Bb'), mode: 'major' } as const;

  test('a chart becomes numerals and comes back as the very text', () => {
    const numerals = toNumerals(SAMPLE, home) ?? '';
    expect(numerals).toContain('| Imaj7 | VI7 | ii7  V7 |');
    // In E flat; “-6” is not the usual spelling, so the player's own suffix stays.
    expect(numerals).toContain('| IV-6 bVII9 |');
    expect(toSymbols(numerals)).toBe(SAMPLE);
  });

  test('every spelling of a chord survives, in every key', () => {
    const suffixes = ['', 'm', '-7', 'Δ7', 'maj7', '7b9', 'ø', 'm7b5', 'dim7', '°7', '7#5', '+7'];
    const others = ['sus4', '7sus4', 'add9', '6/9', 'm(maj7)', '-Δ7', '7(b9,#11)', '7alt', '5'];
    for (const tonic of ['Gb', 'C', 'F#', 'Eb', 'B']) {
      const key = { tonic: note(tonic), mode: 'minor' } as const;
      for (const suffix of [...suffixes, ...others]) {
        for (const root of ['C', 'F#', 'Bb']) {
          const text = `key: ${tonic}m\n| ${root}${suffix} | ${root}${suffix}/E |`;
          const there = toNumerals(text, key) ?? '';
          expect(toSymbols(there), there).toBe(text);
        }
      }
    }
  });

  test('a chart without a key is given one', () => {
    expect(toNumerals('| C | F |', { tonic: note('C'), mode: 'major' })).toBe('key: C\n| I | IV |');
  });
});

test('a power chord stays one in a key of many flats', () => {
  for (const [text, to, moved] of [
    ['| Ab5 | A5 |', 'Cb', '| G5 | Ab5 |'],
    ['| Ab5 | Ab |', 'Db', '| A5 | Bbb |'],
    ['| A5/E |', 'Cb', '| Ab5/Eb |'],
  ] as const) {
    const written = transposeChart(text, note('C'), note(to)) ?? '';
    expect(written).toBe(moved);
    const read = readChart(written);
    expect(read.ok && read.chart.chords[0]?.chord.quality.name).toBe('5');
  }
});

const templates = Object.values(TEMPLATES).flat();

test.each(templates.map((template) => [template.name, template] as const))(
  'the template %s reads in every key',
  (_, template) => {
    for (const tonic of ['Gb', 'Ab', 'C', 'E', 'F#']) {
      const text = fromTemplate(template, note(tonic));
      expect(readChart(text).ok, text).toBe(true);
      expect(text).not.toMatch(/\| [b#]?[iv]+/iu);
    }
  },
);

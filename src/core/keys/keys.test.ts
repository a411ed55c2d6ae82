import { describe, expect, test } from 'vitest';
import { chordName } from '../chords/chords';
import { range } from '../lists';
import { note, noteName, pitchClass } from '../notes/notes';
import {
  isMinorKey,
  type Key,
  KEY_MODES,
  keyName,
  keyOfSignature,
  keyScale,
  keyScales,
  parseKey,
  signatureOf,
  signatureTonic,
  writeKey,
} from './keys';
import {
  decimalOf,
  decimalsIn,
  looksLikeNumeral,
  parseDecimal,
  parseNumeral,
  writeUsualNumeral,
} from './numerals';

const key = (text: string) => {
  const read = parseKey(text);
  if (!read) throw new Error(text);
  return read;
};

describe('a key', () => {
  test.each([
    ['Eb', 'Eb major'],
    ['F#m', 'F# minor'],
    ['C minor', 'C minor'],
    ['C-', 'C minor'],
    ['CM', 'C major'],
    ['G Maj', 'G major'],
    ['A AEOLIAN', 'A minor'],
    ['D dorian', 'D dorian'],
    ['B♭ mixolydian', 'Bb mixolydian'],
    ['G ionian', 'G major'],
  ])('%s is %s', (text, name) => {
    expect(keyName(key(text))).toBe(name);
  });

  test.each(['', 'X', 'c', 'C wobbly', 'C##', 'C 7', 'constructor', 'C constructor'])(
    '“%s” is none',
    (text) => {
      expect(parseKey(text)).toBeNull();
    },
  );

  test('is written as it is read', () => {
    for (const mode of KEY_MODES) {
      for (const tonic of ['C', 'F#', 'Ab']) {
        const one = { tonic: note(tonic), mode };
        expect(parseKey(writeKey(one))).toEqual(one);
      }
    }
    expect([key('Eb'), key('Ebm'), key('Eb lydian')].map(writeKey)).toEqual([
      ...['Eb', 'Ebm', 'Eb lydian'],
    ]);
  });

  test.each([
    ['C', 0],
    ['Am', 0],
    ['D dorian', 0],
    ['E phrygian', 0],
    ['F lydian', 0],
    ['G mixolydian', 0],
    ['B locrian', 0],
    ['C#', 7],
    ['Cb', -7],
    // Eight signs are too many: A♭ and E.
    ['G#', -4],
    ['Fb', 4],
    ['Abm', -7],
    ['D#m', 6],
    ['G#m', 5],
  ] as const)('%s has %i sharps', (text, sharps) => {
    expect(signatureOf(key(text))).toBe(sharps);
  });

  test('of a signature has that signature, in every mode', () => {
    for (const mode of KEY_MODES) {
      for (const sharps of range(-7, 8)) {
        const made = keyOfSignature(sharps, mode);
        expect([mode, signatureOf(made)]).toEqual([mode, sharps]);
        expect(signatureTonic(made)).toBe(sharps);
      }
    }
  });

  test('owns the scales of its mode, a minor one both sixths and both sevenths', () => {
    const owned = (text: string) =>
      new Set(
        keyScales(key(text)).flatMap((scale) => scale.map((one) => pitchClass(one as never))),
      );
    expect([...owned('Cm')].sort((a, b) => a - b)).toEqual([0, 2, 3, 5, 7, 8, 9, 10, 11]);
    expect(owned('C').size).toBe(7);
    expect(keyScale(key('Cm')).map((one) => noteName(one as never))).toEqual([
      ...['C', 'D', 'Eb', 'F', 'G', 'Ab', 'Bb'],
    ]);
    const minor = KEY_MODES.filter((mode) => isMinorKey({ tonic: note('C'), mode }));
    expect(minor).toEqual(['minor', 'dorian', 'phrygian', 'locrian']);
    for (const mode of KEY_MODES) {
      const third = pitchClass(keyScale({ tonic: note('C'), mode })[2] as never);
      expect(third).toBe(minor.includes(mode) ? 3 : 4);
    }
  });
});

describe('a numeral', () => {
  test.each([
    ['I', 'C', 'C'],
    ['ii7', 'C', 'Dm7'],
    ['V7', 'Am', 'E7'],
    ['bVII7', 'D', 'C7'],
    ['♭VII7', 'D', 'C7'],
    ['iiø7', 'G', 'Am7b5'],
    ['V7/ii', 'C', 'A7'],
    ['V7/bVI', 'C', 'Eb7'],
    ['viio7', 'Eb', 'Ddim7'],
    ['#ivo7', 'F', 'Bdim7'],
    ['IVmaj7', 'B', 'Emaj7'],
    ['i6', 'F#m', 'F#m6'],
    ['iMaj7', 'C', 'Cm(maj7)'],
    ['I/3', 'G', 'G/B'],
    ['V7/b7', 'C', 'G7/F'],
    ['I/1', 'C', 'C'],
  ])('%s in %s is %s', (text, of, name) => {
    const chord = parseNumeral(text, key(of));
    expect(chord && chordName({ ...chord, symbol: '' })).toBe(name);
  });

  test.each(['', 'X', 'VIII', 'IIwobbly', 'H7', 'V7/'])('“%s” is none', (text) => {
    expect(parseNumeral(text, key('C'))).toBeNull();
  });

  test('is told from a chord’s root by its first letters', () => {
    expect(['ii7', 'bVII', '##iv', '♭II'].every(looksLikeNumeral)).toBe(true);
    expect(['Dm7', 'Bb', 'bbb7', '', 'N.C.'].some(looksLikeNumeral)).toBe(false);
  });
});

describe('keys by German and sol-fa names', () => {
  test.each([
    ['H', 'B'],
    ['h moll', 'Bm'],
    ['Es dur', 'Eb'],
    ['fis moll', 'F#m'],
    ['Sol m', 'Gm'],
    ['Do', 'C'],
    ['Sib minor', 'Bbm'],
  ])('%s is %s', (text, key) => {
    expect(parseKey(text)).toEqual(parseKey(key));
  });
});

describe('a decimal numeral', () => {
  const cMajor: Key = { tonic: note('C'), mode: 'major' };
  const inC = (text: string) => parseDecimal(text, cMajor)?.symbol ?? null;

  test.each([
    ['1', 'C'],
    ['2m7', 'Dm7'],
    ['57', 'G7'],
    ['5⁷', 'G7'],
    ['b7', 'Bb'],
    ['♭3maj7', 'Ebmaj7'],
    ['#4ø7', 'F#m7b5'],
    ['6-7', 'Am7'],
    // What stands under the slash is counted from the key.
    ['1/3', 'C/E'],
    ['5/7', 'G/B'],
    ['8', null],
    ['0', null],
    ['1x', null],
    ['1/9', null],
  ])('%s in C is %s', (text, symbol) => {
    expect(inC(text)).toBe(symbol);
  });

  test.each([
    ['ii7', '2m7'],
    ['V7', '5⁷'],
    ['V13b9', '5¹³b9'],
    ['V7/ii', '5⁷ of 2m'],
    ['V7/V', '5⁷ of 5'],
    ['V/3', '5/7'],
    ['IVmaj7/3', '4maj7/6'],
    ['iiø7', '2ø7'],
    ['#io7', '#1°7'],
    ['i(maj7)', '1m(maj7)'],
    ['bVIImaj7', 'b7maj7'],
    ['no numeral', 'no numeral'],
  ])('%s in figures is %s', (roman, figures) => {
    expect(decimalOf(roman)).toBe(figures);
  });

  test('a sentence counts in figures, and its words stay', () => {
    expect(decimalsIn('It is the V7 of ii: a ii–V to ♭VI, via (V).')).toBe(
      'It is the 5⁷ of 2m: a 2m–5 to ♭6, via (5).',
    );
  });

  test('what is shown of a chord of a key is read as that chord, in every key', () => {
    for (const tonic of ['C', 'Db', 'F#', 'A', 'Bb']) {
      const key = parseKey(tonic) ?? cMajor;
      for (const roman of [
        'I6',
        'ii7',
        'bIIImaj7',
        'IV',
        'V7',
        'vi',
        'viiø7',
        '#ivo7',
        'bVII7',
        'V/3',
      ]) {
        const chord = parseNumeral(roman, key);
        const shown = chord && decimalOf(writeUsualNumeral(chord, key));
        expect([roman, parseDecimal(shown ?? '', key)]).toEqual([roman, chord]);
      }
    }
  });
});

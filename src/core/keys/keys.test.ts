import { describe, expect, test } from 'vitest';
import { chordName } from '../chords/chords';
import { range } from '../lists';
import { note, noteName, pitchClass } from '../notes/notes';
import {
  isMinorKey,
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
import { looksLikeNumeral, parseNumeral } from './numerals';

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

  test.each(['', 'H', 'c', 'C wobbly', 'C##', 'C 7', 'constructor', 'C constructor'])(
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

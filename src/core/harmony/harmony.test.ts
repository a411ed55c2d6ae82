import { describe, expect, test } from 'vitest';
import { readChart } from '../chart/form';
import { noteName } from '../notes/notes';
import { roleName } from './roleWords';
import { keyName, parseKey, writeKey } from '../keys/keys';
import { parseNumeral, writeNumeral } from '../keys/numerals';
import { type Reading, readHarmony } from './reading';

function read(text: string): Reading {
  const result = readChart(text);
  if (!result.ok) throw new Error(result.problems[0]?.message);
  return readHarmony(result.chart);
}

const numerals = (text: string) =>
  read(text)
    .chords.map(({ numeral }) => numeral)
    .join(' ');
const roles = (text: string) => read(text).chords.map(({ role }) => (role ? roleName(role) : '-'));
const cadences = (text: string) =>
  read(text).cadences.map(({ kind, from, to, key }) => `${kind} ${from}-${to} ${keyName(key)}`);

describe('keys', () => {
  test.each([
    ['Eb', 'Eb major'],
    ['F#m', 'F# minor'],
    ['C minor', 'C minor'],
    ['D dorian', 'D dorian'],
    ['B♭', 'Bb major'],
  ])('%s is %s', (text, expected) => {
    const key = parseKey(text);
    expect(key && keyName(key)).toBe(expected);
    expect(key && parseKey(writeKey(key))).toEqual(key);
  });

  test.each(['X', 'eb', 'C major minor', '', 'C7'])('%j is no key', (text) => {
    expect(parseKey(text)).toBeNull();
  });
});

describe('estimating the key', () => {
  test.each([
    ['| Dm7 | G7 | Cmaj7 | % |', 'C major'],
    ['| Am7 | D7 | Gmaj7 | Cmaj7 | F#m7b5 | B7 | Em | % |', 'E minor'],
    ['| D | C | G | D |', 'D major'],
    ['| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |', 'C major'],
    ['| Bbm7 Eb7 | Abmaj7 | Dbmaj7 | Gm7b5 C7 | Fm7 | Bbm7 Eb7 | Ab6 |', 'Ab major'],
    ['| Am | F | C | G | Am | F | C | G |', 'A minor'],
    ['| Dm7 | G7 | Dm7 | G7 |', 'D dorian'],
    ['| F#m | Bm | C#7 | F#m |', 'F# minor'],
    ['| Gbmaj7 | Ebm7 | Abm7 | Db7 | Gbmaj7 |', 'Gb major'],
  ])('%s is in %s', (text, expected) => {
    const { key } = read(text);
    expect(key.key && keyName(key.key)).toBe(expected);
    expect(key.given).toBe(false);
  });

  test('major chords thirds apart have no single key, and nothing is forced', () => {
    const { key, chords } = read('| C | E | Ab | C | B | Eb | G | E |');
    expect(key.key).toBeNull();
    expect(chords.every(({ numeral, diatonic }) => numeral === null && diatonic === null)).toBe(
      true,
    );
  });

  test('the stated key wins', () => {
    expect(read('key: F\n| Dm7 | G7 | Cmaj7 |').key).toMatchObject({ given: true, confidence: 1 });
    expect(numerals('key: F\n| Dm7 | G7 | Cmaj7 |')).toBe('vi7 V7/V Vmaj7');
  });
});

describe('function', () => {
  test('a minor key owns both sixths and both sevenths', () => {
    const text = 'key: Am\n| Am | E7 | G#dim7 | Am(maj7) | D7 | G | Fmaj7 | Bm7b5 |';
    expect(read(text).chords.every(({ diatonic }) => diatonic)).toBe(true);
    expect(numerals(text)).toBe('i V7 viio7 i(maj7) IV7 bVII bVImaj7 iiø7');
  });

  test.each([
    ['key: C\n| A7 | Dm7 | G7 | C |', 0, 'secondary dominant of ii'],
    ['key: C\n| D7 | Dm7 | G7 | C |', 0, 'secondary dominant of V'],
    ['key: C\n| Dm7 | Db7 | Cmaj7 |', 1, 'tritone substitute'],
    ['key: C\n| Ab7 | G7 | C |', 0, 'tritone substitute of V/V'],
    ['key: C\n| F | Bb7 | C |', 1, 'backdoor dominant'],
    ['key: C\n| F | Fm | C |', 1, 'borrowed from minor'],
    ['key: C\n| Abmaj7 | C |', 0, 'borrowed from minor'],
    ['key: C\n| Bb | F | C |', 0, 'borrowed from minor'],
    ['key: C\n| C | C#dim7 | Dm7 |', 1, 'passing diminished'],
    ['key: C\n| Gm7 | C7 | Fmaj7 |', 0, 'ii of a ii–V to IV'],
    [
      'key: C\n| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |',
      1,
      'blues home dominant',
    ],
    ['key: C\n| Dm7 | G7b9 | C |', 1, 'dominant with altered tensions'],
  ])('%j has a %i: %s', (text, index, role) => {
    expect(roles(text)[index]).toBe(role);
  });

  test('applied dominants are named by what they lead to', () => {
    expect(numerals('key: Eb\n| Gm7 | C7b9 | Fm7 | Bb7 |')).toBe('iii7 V7b9/ii ii7 V7');
  });

  test('a convenient spelling is read by its function', () => {
    expect(numerals('key: Ab\n| E9 | Eb7 | Ab |').split(' ')[0]).toBe('bVI9');
    expect(numerals('key: E\n| Gbm7/Db | Cb7 | E/Ab | F7 | E |')).toBe('ii7/5 V7 I/3 bII7 I');
    expect(numerals('key: C\n| C | C#dim7 | Dm7 | D#dim7 | Em7 |')).toBe('I #io7 ii7 #iio7 iii7');
  });
});

describe('cadences', () => {
  test.each([
    ['key: C\n| Dm7 | G7 | Cmaj7 |', ['ii-V-I major 0-2 C major']],
    ['key: Cm\n| Dm7b5 | G7 | Cm |', ['ii-V-I minor 0-2 C minor']],
    ['key: C\n| Dm7 | Db7 | C |', ['ii-bII-I 0-2 C major']],
    ['key: C\n| G | C |', ['V-I 0-1 C major']],
    ['key: C\n| F | C |', ['IV-I 0-1 C major']],
    ['key: C\n| Dm7 | G7 | Em7 | F |', ['ii-V 0-1 C major']],
    ['key: C\n| C Am | Dm7 G7 |', ['turnaround 0-3 C major', 'ii-V 2-3 C major']],
  ])('%j', (text, expected) => {
    expect(cadences(text)).toEqual(expected);
  });

  test('ii–V’s that lead on to the next make a chain', () => {
    const found = cadences('key: C\n| Em7 A7 | Dm7 G7 | Cmaj7 |');
    expect(found[0]).toBe('ii-V chain 0-4 C major');
  });
});

describe('form and speed', () => {
  const BLUES = '| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |';
  test.each([
    [BLUES, '12-bar blues, quick change'],
    ['| C7 | % | % | % | F7 | % | C7 | % | G7 | F7 | C7 | % |', '12-bar blues'],
    ['| F7 | Bb7 | F7 | % | Bb7 | Bdim7 | F7 | D7 | Gm7 | C7 | F7 | C7 |', '12-bar jazz blues'],
    ['| Cm7 | % | % | % | Fm7 | % | Cm7 | % | Ab7 | G7 | Cm7 | % |', null],
    ['key: Cm\n| Cm7 | % | % | % | Fm7 | % | Cm7 | % | G7 | Fm7 | Cm7 | % |', '12-bar minor blues'],
    ['| C | Am | F | G | C | Am | F | G | E7 | A7 | D7 | G7 | C | Am | F | C |', 'AABA'],
  ])('%s', (text, form) => {
    const found = read(text).form;
    if (form === null) expect(found).not.toBe('12-bar blues');
    else expect(found).toBe(form);
  });

  test('chords too fast to outline are gathered under a larger one', () => {
    const { fast } = read('key: C\ntempo: 200\n| Dm7 G7 | Cmaj7 |');
    expect(fast).toEqual([{ from: 0, to: 1, seconds: 0.6, cover: 'G7sus4 over both' }]);
    expect(read('key: C\ntempo: 80\n| Dm7 G7 | Cmaj7 |').fast).toEqual([]);
  });
});

describe('numerals', () => {
  test.each([
    ['ii7', 'C', 'D m7'],
    ['V7', 'Eb', 'Bb 7'],
    ['bVII7', 'A', 'G 7'],
    ['iiø7', 'Am', 'B m7b5'],
    ['viio7', 'C', 'B dim7'],
    ['#ivo7', 'F', 'B dim7'],
    ['IVmaj7', 'Ab', 'Db maj7'],
    ['i6', 'F#m', 'F# m6'],
    ['V7/ii', 'C', 'A 7'],
    ['i(maj7)', 'Cm', 'C m(maj7)'],
  ])('%s in %s is %s', (numeral, keyText, expected) => {
    const key = parseKey(keyText);
    const chord = key && parseNumeral(numeral, key);
    expect(chord && `${noteName(chord.root)} ${chord.quality.name}`).toBe(expected);
    if (key && chord && !numeral.includes('/')) expect(writeNumeral(chord, key)).toBe(numeral);
  });
});

describe('key areas', () => {
  const areas = (text: string) =>
    read(text).areas.map(
      ({ from, to, key, heard }) => `${from}-${to} ${keyName(key)}${heard ? ' heard' : ''}`,
    );

  test('a section that states its key is in it', () => {
    expect(areas('key: C\n[A] | C | G7 |\n[B] key: Eb | Ebmaj7 | Bb7 |')).toEqual([
      '1-2 C major',
      '3-4 Eb major',
    ]);
  });

  test('one that clearly sounds in another key is suggested, and its numerals stay', () => {
    const text =
      'key: C\n[A] | Cmaj7 | Am7 | Dm7 | G7 |\n[B] | Fm7 | Bb7 | Ebmaj7 | Abmaj7 |\n[A] | C6 |';
    expect(areas(text)).toEqual(['1-4 C major', '5-8 Eb major heard', '9-9 C major']);
    expect(read(text).chords[6]?.key).toEqual(parseKey('C'));
  });

  test('the relative minor is no other area', () => {
    expect(areas('key: C\n[A] | C | F | G | C |\n[B] | Am | Dm | E7 | Am |')).toEqual([
      '1-8 C major',
    ]);
  });
});

test('a dorian vamp is at home, not a ii–V of somewhere else', () => {
  expect(cadences('key: G dorian\n| Gm7 | C7 | Gm7 | C7 |')).toEqual([]);
});

test('a lone chord on a rare root is still its own key', () => {
  const { key } = read('| Cb |');
  expect(key.key && keyName(key.key)).toBe('Cb major');
});

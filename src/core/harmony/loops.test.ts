import { describe, expect, test } from 'vitest';
import { keyName } from '../keys/keys';
import { at, range } from '../lists';
import { transposeChart } from '../chart/rewrite';
import { note } from '../notes/notes';
import { readHarmony } from './reading';
import { chartOf, pairs, some } from '$tests/laws';
import { LOOP_CHARTS } from '$tests/loops';

const ROOTS = 'C Db D Eb E F F# G Ab A Bb B'.split(' ');
const read = (text: string) => readHarmony(chartOf(text)).key;
const named = (text: string) => {
  const { key } = read(text);
  return key && keyName(key);
};

/** Loops in C or A minor, and the key they are in. */
const LOOPS: readonly (readonly [string, string])[] = [
  ['| C | % | F | % |', 'C major'],
  ['| C | Am | Dm | G |', 'C major'],
  ['| C | A | D | G |', 'C major'],
  ['| C | F |', 'C major'],
  ['| C | G |', 'C major'],
  ['| C | G | Am | F |', 'C major'],
  ['| C | Am | F | G |', 'C major'],
  ['| C | F | G | F |', 'C major'],
  ['| C | Bb | F | C |', 'C major'],
  ['| C | Em | F | G |', 'C major'],
  ['| C | F | Am | G |', 'C major'],
  ['| C F | G F |', 'C major'],
  ['| Am | G | F | G |', 'A minor'],
  ['| Am | G | F |', 'A minor'],
  ['| Am | F | C | G |', 'A minor'],
  ['| Am | Dm |', 'A minor'],
  ['| Am | G |', 'A minor'],
  ['| Am | C | G | F |', 'A minor'],
  ['| C | D |', 'C lydian'],
  ['| C | Bb |', 'C mixolydian'],
];

/** The same with sevenths in them. */
const WITH_SEVENTHS: readonly (readonly [string, string])[] = [
  ['| C | E7 | F | Fm |', 'C major'],
  ['| C | A7 | D7 | G7 |', 'C major'],
  ['| F | G | Am | E7 |', 'A minor'],
  ['| F | G7 | C | Am |', 'C major'],
  ['| C | Am7 | F | G7 |', 'C major'],
  ['| C | Cmaj7 | C7 | F |', 'C major'],
  ['| C | C7 | F | Fm |', 'C major'],
  ['| Csus2 | Am7 | Fmaj7 | G |', 'C major'],
  ['| C | D7 | F | C |', 'C major'],
  ['| Am7 | D7 |', 'A dorian'],
  ['| Am7 | D7 | Am7 | D7 |', 'A dorian'],
  ['| Dm7 | G7 | C | % |', 'C major'],
  ['| Bm7b5 | E7 | Am | % |', 'A minor'],
  ['| Cmaj7 | Fmaj7 |', 'C major'],
];

describe('loops with sevenths', () => {
  test('rest on their first chord, or where a dominant leads, in every key', () => {
    for (const [text, key] of WITH_SEVENTHS) {
      expect(named(text), text).toBe(key);
      for (const root of ROOTS.slice(1)) {
        const moved = transposeChart(text, note('C'), note(root)) ?? '';
        const [own, there] = [read(text), read(moved)];
        expect(there.key?.mode, moved).toBe(own.key?.mode);
        const up = ((there.key?.tonic ?? 0) - (own.key?.tonic ?? 0) - note(root)) % 12;
        expect(up === 0, moved).toBe(true);
      }
    }
  });

  test('a minor seventh and the dominant above it are dorian, or the ii–V of another key', () => {
    const [first, second] = read('| Dm7 | G7 |').likeliest;
    expect([first, second].map((one) => one && keyName(one.key))).toEqual(['D dorian', 'C major']);
  });
});

describe('two hundred loops, vamps and charts of slash chords', () => {
  test('are read alike in every key', () => {
    for (const [text, root] of some(pairs(LOOP_CHARTS, ROOTS.slice(1)), 400)) {
      const moved = transposeChart(text, note('C'), note(root)) ?? '';
      const [own, there] = [text, moved].map((one) => readHarmony(chartOf(one)));
      if (!own || !there) throw new Error(text);
      expect(there.key.key?.mode, moved).toBe(own.key.key?.mode);
      expect(there.key.confidence, moved).toBeCloseTo(own.key.confidence);
      expect(there.idiom, moved).toEqual(own.idiom);
      const told = ({ chords }: typeof own) =>
        // A far root is written as it is easily read: ♭iii may be ♯ii there.
        chords.map(({ numeral, role }) =>
          /^[b#]/u.test(numeral ?? '') ? role?.kind : `${numeral} ${role?.kind ?? ''}`,
        );
      expect(told(there), moved).toEqual(told(own));
    }
  });
});

describe('loops of plain triads', () => {
  test.each(LOOPS)('%s is in %s', (text, key) => {
    expect(named(text)).toBe(key);
    expect(read(text).confidence).toBeLessThanOrEqual(0.8);
  });

  test('in every key alike', () => {
    for (const [text] of LOOPS)
      for (const root of ROOTS.slice(1)) {
        const moved = transposeChart(text, note('C'), note(root)) ?? '';
        const [own, there] = [read(text), read(moved)];
        expect(there.key?.mode, moved).toBe(own.key?.mode);
        expect(there.confidence).toBeCloseTo(own.confidence);
      }
  });

  test('every rotation begins at home, and both keys are named beside each other', () => {
    const chords = ['C', 'G', 'Am', 'F'];
    for (const by of range(0, 4)) {
      const turned = range(0, 4).map((place) => at(chords, (place + by) % 4));
      const { key, likeliest } = read(`| ${turned.join(' | ')} |`);
      const first = at(turned, 0);
      expect(key && keyName(key)).toBe(first === 'Am' ? 'A minor' : `${first} major`);
      expect(likeliest).toHaveLength(2);
      expect(likeliest[0]?.key).toEqual(key);
      expect(likeliest[1]?.key).not.toEqual(key);
      const sum = likeliest.reduce((all, { confidence }) => all + confidence, 0);
      expect(sum).toBeLessThanOrEqual(1);
    }
  });

  test('sevenths that lead are cadences still, and a stated key has no other beside it', () => {
    expect(named('| Dm7 | G7 | Cmaj7 | % |')).toBe('C major');
    expect(named('| Am7 | Dm7 | G7 | Cmaj7 |')).toBe('C major');
    expect(read('key: G\n| C | G |')).toMatchObject({ given: true, likeliest: [] });
  });
});

describe('dominants at home', () => {
  const roles = (text: string) =>
    readHarmony(chartOf(text)).chords.map(({ role }) => role?.kind ?? null);

  test('I7 and IV7 need not recur, on a stated key, under a shuffle, or alone', () => {
    for (const text of [
      'key: A\n| A7 | % | D7 | % |',
      'feel: shuffle\n| A7 | % | D7 | % |',
      '| A7 | % | D7 | % |',
      'key: A\n| A7 | D7 | E | % |',
    ]) {
      expect(named(text), text).toBe('A major');
      expect(roles(text).slice(0, 2), text).toEqual(['blues home dominant', 'blues home dominant']);
    }
    // A chain of dominants is none.
    expect(roles('key: C\n| A7 | D7 | G7 | C |')).not.toContain('blues home dominant');
    expect(roles('key: C\n| C7 | Dm7 | G7 | C7 |')).not.toContain('blues home dominant');
  });

  test('one that a loop comes back to over its flat seventh is mixolydian', () => {
    expect(named('| A7 | G | D/F# | A7 |')).toBe('A mixolydian');
    expect(named('| A7 | D | G | A7 |')).not.toBe('A mixolydian');
  });
});

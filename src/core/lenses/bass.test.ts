import { describe, expect, test } from 'vitest';
import { shiftChart } from '../chart/rewrite';
import { withBassTone } from '../chords/bass';
import { readHarmony } from '../harmony/reading';
import { at, modulo, range } from '../lists';
import { halfSteps, intervalBetween, pitchClass } from '../notes/notes';
import { parseChord } from '../chords/symbols';
import { assess, NOWHERE } from './assess';
import { parseMaterial } from './material';
import { lensContexts, optionsFor } from './options';
import { chartOf } from '$tests/laws';

const firstFive = (text: string, index: number) => {
  const chart = chartOf(text);
  return optionsFor(at(lensContexts(chart, readHarmony(chart)), index)).slice(0, 5);
};

describe('the bass is a tone of the chord', () => {
  /** Charts, a chord of theirs, and the note, in half steps above its root, that nothing first may hold. */
  const CASES = [
    // C/Bb: no B natural.
    ['key: C\n| C/Bb |', 0, 11],
    ['| C/Bb | F |', 0, 11],
    // B/A: no A sharp.
    ['key: E\n| B/A | E |', 0, 11],
    ['key: Cm\n| Cm | Cm/Bb |', 1, 11],
    ['key: G\n| G | D/C | G/B |', 1, 11],
    // C/B: no B flat.
    ['key: C\n| C | C/B | Am |', 1, 10],
    // G/B in D minor: no F sharp.
    ['key: Dm\n| Dm | G/B | C | Dm |', 1, 11],
  ] as const;

  test.each(CASES)('%s', (text, index, size) => {
    for (const by of range(-5, 7)) {
      const { key } = chartOf(text).source;
      const moved = shiftChart(text, by, key) ?? '';
      const { root } = at(chartOf(moved).chords, index).chord;
      for (const { material } of firstFive(moved, index))
        expect(
          material.notes.map((note) => modulo(pitchClass(note) - pitchClass(root), 12)),
          `${moved}: ${material.name}`,
        ).not.toContain(size);
    }
  });

  test('a triad over its sixth or seventh is the chord of four notes it sounds', () => {
    const sounding = (text: string) => {
      const chord = parseChord(text);
      return chord && withBassTone(chord).quality.name;
    };
    expect(['C/Bb', 'C/B', 'C/A', 'Cm/Bb', 'Cm/B', 'Cm/A'].map(sounding)).toEqual([
      ...['7', 'maj7', '6', 'm7', 'm(maj7)', 'm6'],
    ]);
    // Its own tones in the bass, and other basses, leave it as it is.
    for (const text of ['C/E', 'C/G', 'C/D', 'C/F', 'Am7/D', 'Dm7/G', 'C'])
      expect(sounding(text), text).toBe(parseChord(text)?.quality.name);
  });

  test('a half step above the bass clashes as above any tone', () => {
    const [chord, material] = [parseChord('Am7/D'), parseMaterial('A phrygian')];
    if (!chord || !material) throw new Error('unreadable');
    const clashes = assess(chord, material, NOWHERE).clashes.map(({ note }) =>
      halfSteps(intervalBetween(chord.root, note)),
    );
    expect(clashes).toEqual([1, 8]);
    const shifted = parseMaterial('A locrian');
    const more = shifted ? assess(chord, shifted, NOWHERE).clashes : [];
    // Over A minor with D in the bass, E flat clashes with the D.
    expect(more.map(({ above }) => above)).toContain(chord.bass);
  });
});

describe('a dominant of the stated key takes that key first', () => {
  test.each([
    ['key: Am\n| Am | G7 | F | E7 |', 1],
    ['| Am | G7 | Fmaj7 | G7 |', 1],
    ['key: G dorian\n| Gm9 | C13 |', 1],
    ['key: A mixolydian\n| A7 | G | D | A7 |', 0],
  ])('%s', (text, index) => {
    const modes = firstFive(text, index).filter(({ lens }) => lens === 'mode');
    expect(modes[0]?.material.kind).toBe('mixolydian');
  });
});

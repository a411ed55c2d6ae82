import { describe, expect, test } from 'vitest';
import { parseChord } from '../chords/symbols';
import { parseMaterial } from '../lenses/material';
import { range } from '../lists';
import { type Interval, note, transpose } from '../notes/notes';
import { transposeSymbol } from '../chart/rewrite';
import { adviceAt } from './advice';

const material = (text: string) => {
  const found = parseMaterial(text);
  if (!found) throw new Error(text);
  return found;
};
const advice = (symbol: string, over: string, before: string | null, melody: string | null) => {
  const chord = parseChord(symbol);
  if (!chord) throw new Error(symbol);
  return adviceAt({
    chord,
    material: material(over),
    before: before === null ? null : material(before),
    melody: melody === null ? null : note(melody),
  });
};

describe('staying put at a change', () => {
  test('where the pentatonic before has the third and the major seventh, and not the root', () => {
    expect(advice('F', 'F major pentatonic', 'A minor pentatonic', null)).toMatch(/has E,/u);
    expect(advice('Fmaj7', 'F major pentatonic', 'E minor pentatonic', null)).toMatch(/has E,/u);
    // With F sharp it rubs against the root.
    expect(advice('F', 'F major pentatonic', 'A minor sixth pentatonic', null)).toBeNull();
    const said = advice('C', 'C major pentatonic', 'E minor pentatonic', null);
    expect(said).toBe(
      'The root C sounds forced here: E minor pentatonic has B, its smoother major seventh. Stay put.',
    );
  });

  test('in every key alike', () => {
    for (const up of range(-6, 6)) {
      const by = up as Interval;
      const root = transposeSymbol('C', by);
      const before = transposeSymbol('E', by);
      expect(advice(root, `${root} major pentatonic`, `${before} minor pentatonic`, null)).toMatch(
        /sounds forced here: .* minor pentatonic has .*Stay put\.$/u,
      );
      const melody = transpose(note('B'), by);
      const chord = parseChord(root);
      if (!chord) throw new Error(root);
      expect(
        adviceAt({ chord, material: material(`${root} ionian`), before: null, melody }),
      ).toMatch(/a half step from it\. Let it pass\.$/u);
    }
  });

  test('not over a dominant, a minor chord, a scale that has the root, or without a choice before', () => {
    expect(advice('C7', 'C major pentatonic', 'E minor pentatonic', null)).toBeNull();
    expect(advice('Cm', 'C minor pentatonic', 'E minor pentatonic', null)).toBeNull();
    expect(advice('C', 'C major pentatonic', 'A minor pentatonic', null)).toBeNull();
    expect(advice('C', 'E minor pentatonic', 'E minor pentatonic', null)).toBeNull();
    expect(advice('C', 'C major pentatonic', 'E phrygian', null)).toBeNull();
    expect(advice('C', 'C major pentatonic', null, null)).toBeNull();
  });

  test('a melody a half step from the root says so, whatever the chord', () => {
    expect(advice('Dm7', 'D dorian', 'G minor pentatonic', 'Eb')).toBe(
      'The root D sounds forced here: the melody has Eb, a half step from it. Let it pass.',
    );
    expect(advice('Dm7', 'D dorian', 'E minor sixth pentatonic', 'C#')).toBe(
      'The root D sounds forced here: the melody has C#, a half step from it. Stay on E minor sixth pentatonic.',
    );
    expect(advice('Dm7', 'D dorian', 'G minor pentatonic', 'E')).toBeNull();
  });
});

import { describe, expect, test } from 'vitest';
import { type Feel, feelOfKind, readFeel } from './feel';
import { feelAt, offBeatOf, playedAt } from './swing';
import { BEAT, inBeats } from './units';

const FOUR = { beats: 4, unit: 4 };
const swung = (unit: 'eighth' | '16th', ratio: number): Feel => ({
  name: 'x',
  kind: 'swing',
  swing: { unit, ratio },
});

describe('where a written beat is played', () => {
  test.each([
    [0, 0],
    [0.25, 0.25],
    [1 / 3, 1 / 3],
    [0.5, 2 / 3],
    [1.5, 5 / 3],
    [-0.5, -1 / 3],
  ])('in swung eighths: %d at %d', (beat, heard) => {
    expect(inBeats(playedAt(beat * BEAT, swung('eighth', 2), FOUR))).toBeCloseTo(heard, 9);
  });

  test.each([
    [0.25, 1 / 3],
    [0.75, 0.5 + 1 / 3],
    [0.5, 0.5],
    [0.125, 0.125],
  ])('in swung sixteenths: %d at %d', (beat, heard) => {
    expect(inBeats(playedAt(beat * BEAT, swung('16th', 2), FOUR))).toBeCloseTo(heard, 9);
  });

  test('counts in the beats of the metre, and leaves even feels alone', () => {
    expect(inBeats(playedAt(1 * BEAT, swung('eighth', 2), { beats: 4, unit: 8 }))).toBeCloseTo(
      4 / 3,
      9,
    );
    expect(inBeats(playedAt(0.25 * BEAT, swung('eighth', 2), { beats: 2, unit: 2 }))).toBeCloseTo(
      1 / 3,
      9,
    );
    expect(inBeats(playedAt(0.5 * BEAT, swung('eighth', 3), FOUR))).toBeCloseTo(0.75, 9);
    expect(playedAt(BEAT / 2, feelOfKind('bossa'), FOUR)).toBe(BEAT / 2);
    expect(playedAt(BEAT / 2, null, FOUR)).toBe(BEAT / 2);
  });

  test('swings pulses of two only, in every bar alike', () => {
    const moved = (beats: number, unit: number) =>
      Array.from({ length: 2 * beats }, (_, beat) => beat).filter(
        (beat) => playedAt(beat * BEAT, swung('eighth', 2), { beats, unit }) !== beat * BEAT,
      );
    // A pulse of three has no second half.
    expect(moved(6, 8)).toEqual([]);
    expect(moved(12, 8)).toEqual([]);
    expect(moved(7, 8)).toEqual([1, 3, 8, 10]);
    expect(moved(5, 8)).toEqual([4, 9]);
  });
});

describe('the width of swing', () => {
  const swing = feelOfKind('swing');

  test.each([
    [100, 2],
    [140, 2],
    [170, 1.8],
    [200, 1.6],
    [260, 1.3],
    [400, 1.15],
  ])('at %i is %f to one', (bpm, ratio) => {
    expect(feelAt(swing, bpm).swing?.ratio).toBeCloseTo(ratio);
  });

  test('is a shuffle’s triplet at any tempo, and no wider than a ballad’s own', () => {
    expect(feelAt(feelOfKind('shuffle'), 260).swing?.ratio).toBe(2);
    expect(feelAt(feelOfKind('ballad'), 60).swing?.ratio).toBe(1.6);
    expect(feelAt(feelOfKind('rock'), 200)).toEqual(feelOfKind('rock'));
  });

  test('is said as where the off-beat sounds', () => {
    expect(offBeatOf(feelAt(swing, 100))).toBeCloseTo(2 / 3);
    expect(offBeatOf(readFeel('bossa') ?? swing)).toBe(0.5);
    expect(offBeatOf(swung('16th', 2))).toBe(0.5);
  });
});

test('a feel is known by the words of a chart, the more particular first', () => {
  const kinds = (words: readonly string[]) => words.map((one) => readFeel(one)?.kind ?? null);
  expect(
    kinds(['Swing', 'jazz waltz', 'slow blues 12/8', 'even eighths', 'bossa', '', 'odd']),
  ).toEqual([...['swing', 'jazz waltz', 'slow 12/8', 'straight', 'bossa', null, 'straight']]);
  expect(readFeel('straight ballad')).toMatchObject({ kind: 'ballad', swing: null });
  expect(readFeel('medium swing')?.swing).toEqual({ unit: 'eighth', ratio: 2 });
  expect(readFeel('ballad')?.swing).toEqual({ unit: 'eighth', ratio: 1.6 });
});

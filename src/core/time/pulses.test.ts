import { describe, expect, test } from 'vitest';
import { feelOfKind, type Feel, playedAt, readFeel } from './feel';
import { offsetIn, pulsesOf } from './pulses';

describe('the pulses of a bar', () => {
  test.each([
    [4, 4, '1 1 | 1 1'],
    [3, 4, '1 1 1'],
    [2, 4, '1 1'],
    [5, 4, '1 1 1 | 1 1'],
    [6, 4, '1 1 1 | 1 1 1'],
    [7, 4, '1 1 | 1 1 | 1 1 1'],
    [9, 4, '1 1 1 | 1 1 1 | 1 1 1'],
    [2, 2, '0.5 0.5 | 0.5 0.5'],
    [6, 8, '3 3'],
    [9, 8, '3 3 3'],
    [12, 8, '3 3 | 3 3'],
    [3, 8, '3'],
    [5, 8, '3 2'],
    [7, 8, '2 2 3'],
    [2, 8, '2'],
    [8, 16, '4 4'],
  ])('of %i/%i are %s', (beats, unit, said) => {
    const groups = new Map<number, number[]>();
    for (const pulse of pulsesOf({ beats, unit })) {
      groups.set(pulse.group, [...(groups.get(pulse.group) ?? []), pulse.beats]);
      expect(pulse.place).toBe((groups.get(pulse.group) ?? []).length - 1);
      expect(pulse.triple).toBe(unit > 4 && pulse.beats === 3);
    }
    expect([...groups.values()].map((own) => own.join(' ')).join(' | ')).toBe(said);
  });

  test('tile it', () => {
    for (const [beats, unit] of [4, 5, 6, 7, 9, 12].flatMap((one) => [
      [one, 4],
      [one, 8],
    ])) {
      let end = 0;
      for (const pulse of pulsesOf({ beats: beats ?? 4, unit: unit ?? 4 })) {
        expect(pulse.beat).toBe(end);
        end += pulse.beats;
      }
      expect(end).toBe(beats);
    }
  });

  test('fall into two by the feel, and into three where they are triple', () => {
    const [quarter] = pulsesOf({ beats: 4, unit: 4 });
    const [dotted] = pulsesOf({ beats: 6, unit: 8 });
    if (!quarter || !dotted) throw new Error('no pulse');
    const parts = (pulse: typeof quarter, kind: Parameters<typeof feelOfKind>[0]) =>
      (['on', 'e', '&', 'a', 't'] as const).map((part) =>
        Number(offsetIn(pulse, part, feelOfKind(kind)).toFixed(3)),
      );
    expect(parts(quarter, 'straight')).toEqual([0, 0.25, 0.5, 0.75, 0.75]);
    expect(parts(quarter, 'swing')).toEqual([0, 0.333, 0.667, 0.833, 0.833]);
    expect(parts(quarter, 'ballad')).toEqual([0, 0.308, 0.615, 0.808, 0.808]);
    expect(parts(quarter, 'slow 12/8')).toEqual([0, 0.333, 0.667, 0.667, 0.333]);
    expect(parts(dotted, 'swing')).toEqual([0, 1, 2, 2, 1]);
  });
});

describe('swing', () => {
  const swung = (unit: 'eighth' | '16th', ratio: number): Feel => ({
    ...{ name: 'x', kind: 'swing', swing: { unit, ratio } },
  });

  test.each([
    [0, 0],
    [0.25, 0.25],
    [1 / 3, 1 / 3],
    [0.5, 2 / 3],
    [1.5, 5 / 3],
    [-0.5, -1 / 3],
  ])('of eighths moves the second of a pair: %d to %d', (beat, heard) => {
    expect(playedAt(beat, swung('eighth', 2), 4)).toBeCloseTo(heard, 9);
  });

  test.each([
    [0.25, 1 / 3],
    [0.75, 0.5 + 1 / 3],
    [0.5, 0.5],
    [0.125, 0.125],
  ])('of sixteenths moves the second of theirs: %d to %d', (beat, heard) => {
    expect(playedAt(beat, swung('16th', 2), 4)).toBeCloseTo(heard, 9);
  });

  test('counts in the beats of the metre, and leaves even feels alone', () => {
    expect(playedAt(1, swung('eighth', 2), 8)).toBeCloseTo(4 / 3, 9);
    expect(playedAt(0.5, swung('eighth', 3), 4)).toBeCloseTo(0.75, 9);
    expect(playedAt(0.5, feelOfKind('bossa'), 4)).toBe(0.5);
    expect(playedAt(0.5, null, 4)).toBe(0.5);
  });

  test('is known by the words of a chart, the more particular first', () => {
    const kinds = (words: readonly string[]) => words.map((one) => readFeel(one)?.kind ?? null);
    expect(
      kinds(['Swing', 'jazz waltz', 'slow blues 12/8', 'even eighths', 'bossa', '', 'odd']),
    ).toEqual([...['swing', 'jazz waltz', 'slow 12/8', 'straight', 'bossa', null, 'straight']]);
    expect(readFeel('straight ballad')).toMatchObject({ kind: 'ballad', swing: null });
    expect(readFeel('medium swing')?.swing).toEqual({ unit: 'eighth', ratio: 2 });
    expect(readFeel('ballad')?.swing).toEqual({ unit: 'eighth', ratio: 1.6 });
  });
});

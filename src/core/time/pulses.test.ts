import { describe, expect, test } from 'vitest';
import type { FeelKind } from './feel';
import { offsetIn, pulsesOf } from './pulses';
import { BEAT, inBeats } from './units';

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
      groups.set(pulse.group, [...(groups.get(pulse.group) ?? []), inBeats(pulse.beats)]);
      expect(pulse.place).toBe((groups.get(pulse.group) ?? []).length - 1);
      expect(pulse.triple).toBe(unit > 4 && pulse.beats === 3 * BEAT);
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
      expect(end).toBe((beats ?? 4) * BEAT);
    }
  });

  test('fall into two, and into three where they are triple or the feel is', () => {
    const [quarter] = pulsesOf({ beats: 4, unit: 4 });
    const [dotted] = pulsesOf({ beats: 6, unit: 8 });
    if (!quarter || !dotted) throw new Error('no pulse');
    const parts = (pulse: typeof quarter, kind: FeelKind) =>
      (['on', 'e', '&', 'a', 't'] as const).map((part) =>
        Number(inBeats(offsetIn(pulse, part, kind)).toFixed(3)),
      );
    expect(parts(quarter, 'straight')).toEqual([0, 0.25, 0.5, 0.75, 0.75]);
    expect(parts(quarter, 'swing')).toEqual([0, 0.25, 0.5, 0.75, 0.75]);
    expect(parts(quarter, 'slow 12/8')).toEqual([0, 0.333, 0.667, 0.667, 0.333]);
    expect(parts(dotted, 'swing')).toEqual([0, 1, 2, 2, 1]);
  });
});

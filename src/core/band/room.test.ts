import { describe, expect, test } from 'vitest';
import type { Room } from './events';
import { bandUnder, soloIn } from './room';
import { BEAT } from '../time/units';

const stroke = (beat: number, room?: Room) => ({
  beat: beat * BEAT,
  ...(room ? { room } : {}),
});

describe('room for a line', () => {
  test('a line plays from three quarters of a beat before a note to a quarter after it', () => {
    const line = [{ beat: 4 * BEAT, beats: BEAT }];
    const at = (beat: number) => soloIn(line, beat * BEAT);
    expect([3.24, 3.25, 3.26].map(at)).toEqual(['resting', 'resting', 'playing']);
    expect([5.24, 5.25, 5.26].map(at)).toEqual(['playing', 'resting', 'resting']);
    expect(soloIn([], 4 * BEAT)).toBeNull();
  });

  test('strokes leave room under its notes, answers wait for its rests', () => {
    const band = [stroke(0), stroke(0.5, 'left'), stroke(0.5, 'answer')].concat([
      ...[stroke(4), stroke(4.5, 'left'), stroke(4.5, 'answer')],
    ]);
    const under = bandUnder(band, [{ beat: 0, beats: 2 * BEAT }]);
    expect(under).toEqual([stroke(0), stroke(4), stroke(4.5, 'left'), stroke(4.5, 'answer')]);
    expect(bandUnder(band, []).filter(({ room }) => room === 'answer')).toEqual([]);
    expect(bandUnder(band, [])).toHaveLength(4);
  });
});

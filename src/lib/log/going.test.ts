import { describe, expect, test } from 'vitest';
import { type Going, keyOf, type Playing, stintOf } from './going';

const PLAYING: Playing = {
  chart: 'c',
  exercise: 'targets',
  zone: { low: 5, high: 8 },
  extent: 'form',
  tempo: 90.4,
};
const going = (changed: Partial<Going> = {}): Going => ({
  at: '2026-06-15T18:00:00+02:00',
  since: 60_000,
  began: PLAYING,
  id: 'a',
  asked: 0,
  landed: 0,
  said: null,
  ...changed,
});

describe('a stint as it goes on', () => {
  test('has the tempos it began and goes on with, and its minutes', () => {
    const faster: Playing = { ...PLAYING, tempo: 99.5, extent: 'chord' };
    expect(stintOf(going(), faster, 150_000)).toMatchObject({
      at: '2026-06-15T18:00:00+02:00',
      chart: 'c',
      zone: { low: 5, high: 8 },
      extent: 'chord',
      tempoFrom: 90,
      tempo: 100,
      minutes: 1.5,
      asked: null,
      landed: null,
    });
    expect(stintOf(going(), PLAYING, 60_000 * 2_000).minutes).toBe(1_440);
  });

  test('says what was heard, and the player’s word only where nothing was', () => {
    const of = (changed: Partial<Going>) => {
      const { asked, landed } = stintOf(going(changed), PLAYING, 0);
      return [asked, landed];
    };
    expect(of({ said: 'shaky' })).toEqual([10, 6]);
    expect(of({ said: 'clean' })).toEqual([10, 10]);
    expect(of({ said: 'clean', asked: 1, landed: 0 })).toEqual([1, 0]);
  });

  test('is another with another thing or another zone, not with another tempo', () => {
    const same: Playing = { ...PLAYING, tempo: 120, extent: 'chord' };
    expect(keyOf(same)).toBe(keyOf(PLAYING));
    const others: readonly Playing[] = [
      { ...PLAYING, chart: 'd' },
      { ...PLAYING, exercise: 'free' },
      { ...PLAYING, zone: { low: 5, high: 9 } },
      { ...PLAYING, zone: { low: 4, high: 8 } },
    ];
    expect(new Set([PLAYING, ...others].map(keyOf)).size).toBe(5);
  });
});

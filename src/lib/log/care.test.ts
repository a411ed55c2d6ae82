import { describe, expect, test } from 'vitest';
import { range } from '$core/lists';
import { type Played, playedOn } from './care.svelte';

const MINUTE = 60_000;
const NONE: Played = { played: 0, last: 0 };

/** Plays for some minutes from a time on, looked at four times a minute. */
const playing = (from: Played, minutes: number): Played =>
  range(0, 4 * minutes).reduce(
    (sofar) => playedOn(sofar, sofar.last + MINUTE / 4, true),
    playedOn(from, from.last, false),
  );

describe('what is played without a rest', () => {
  const half = playing({ played: 0, last: 100 * MINUTE }, 30);

  test('is counted by the clock', () => {
    expect(half.played).toBe(30 * MINUTE);
    expect(playing(NONE, 5).played).toBe(5 * MINUTE);
  });

  test('a short pause is no rest and is not counted; a rest begins anew', () => {
    const paused = playedOn(half, half.last + 2 * MINUTE, false);
    expect(playing(paused, 1).played).toBe(31 * MINUTE);
    const rested = playedOn(half, half.last + 4 * MINUTE, false);
    expect(playing(rested, 1).played).toBe(MINUTE);
  });

  test('a clock set back adds nothing and takes nothing away', () => {
    const back = playedOn(half, half.last - 60 * MINUTE, true);
    expect(back.played).toBe(30 * MINUTE);
    expect(playing(back, 1).played).toBe(31 * MINUTE);
  });
});

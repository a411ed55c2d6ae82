import { describe, expect, test } from 'vitest';
import { levelAfter, NO_LEVEL } from './level';
import { isHeard, levelSays } from './says';
import { asNote } from './soundingNote';

/** The level after stretches of a quarter of a second, each with its loudest sample. */
const after = (...peaks: readonly number[]) =>
  peaks.reduce((level, peak, index) => levelAfter(level, peak, index / 4), NO_LEVEL);
const quiet = (seconds: number) => Array.from({ length: 4 * seconds }, () => 0);

describe('the level of what comes in', () => {
  test('is the loudest of the last two seconds', () => {
    expect(after(0.8, 0.1, 0.2).peak).toBe(0.8);
    expect(after(0.8, ...Array<number>(7).fill(0.1)).peak).toBe(0.8);
    expect(after(0.8, ...Array<number>(8).fill(0.1)).peak).toBe(0.1);
  });

  test('is silent for as long as nothing was heard, from the last that was', () => {
    expect(after(0.5).silence).toBe(0);
    expect(after(0.5, 0, 0).silence).toBe(0.5);
    expect(after(0.5, ...quiet(5)).silence).toBe(5);
    expect(after(0, 0, 0).silence).toBe(0.5);
    expect(after(...quiet(4), 0.2, 0).silence).toBe(0.25);
  });

  test('says what is wrong with it, with a way out', () => {
    expect(levelSays({ peak: 0.985, silence: 0 })).toContain('Clipping');
    expect(levelSays({ peak: 0.984, silence: 0 })).toBeNull();
    expect(levelSays({ peak: 0.012, silence: 0 })).toBeNull();
    expect(levelSays({ peak: 0.0119, silence: 4.9 })).toContain('Too quiet');
    expect(levelSays({ peak: 0.0005, silence: 0 })).toContain('Too quiet');
    expect(levelSays({ peak: 0.0004, silence: 4.9 })).toBeNull();
    expect(levelSays({ peak: 0, silence: 5 })).toContain('Nothing comes in');
    expect([isHeard(0.0005), isHeard(0.0004)]).toEqual([true, false]);
  });
});

test('what still sounds is the nearest note up to now, and no shorter than one can be', () => {
  const sounding = { at: 10, seconds: 3, pitch: 60.4, clarity: 0.9, level: 1 };
  expect(asNote(sounding, 11.5)).toMatchObject({
    at: 10,
    seconds: 3,
    length: 1.5,
    midi: 60,
    cents: 40,
    clarity: 0.9,
    bent: 0,
  });
  expect(asNote({ ...sounding, pitch: 60.6 }, 10)).toMatchObject({
    midi: 61,
    cents: -40,
    length: 0.05,
  });
});

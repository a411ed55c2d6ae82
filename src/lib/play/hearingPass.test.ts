import { BEAT } from 'corvel-core';
import { describe, expect, test } from 'vitest';
import { aroundPass, heardUpTo, isHeardOut, isOfCount, takenIn } from './hearingPass';

const HAIR = 1;

/** A note heard at a beat of a pass, bent by some half steps. */
const note = (beat: number, bent = 0) => ({
  beat,
  beats: BEAT,
  midi: 60,
  bent,
  seconds: 0,
  length: 0.5,
  cents: 0,
  clarity: 1,
  from: 'pick' as const,
});
const PASS = { start: 16 * BEAT, beats: 8 * BEAT };

describe('the notes of a pass', () => {
  test('that may answer its targets begin a beat before it and end before a beat after it', () => {
    const beats = [-BEAT - HAIR, -BEAT, 0, 9 * BEAT - HAIR, 9 * BEAT];
    const around = aroundPass(
      beats.map((beat) => note(beat)),
      PASS,
    );
    expect(around.map(({ beat }) => beat)).toEqual([-BEAT, 0, 9 * BEAT - HAIR]);
  });

  test('answer at the pitch they are bent to', () => {
    const around = aroundPass([note(0, 1.6), note(0, 0.4)], PASS);
    expect(around.map(({ midi }) => midi)).toEqual([62, 60]);
  });

  test('that were played in it begin a quarter of a beat early, in time of the chart', () => {
    const quarter = BEAT / 4;
    const beats = [-quarter - HAIR, -quarter, BEAT, 8 * BEAT - quarter - HAIR, 8 * BEAT - quarter];
    const taken = takenIn(
      beats.map((beat) => note(beat, 2)),
      PASS,
    );
    expect(taken.map(({ beat }) => beat - PASS.start)).toEqual([
      0,
      BEAT,
      8 * BEAT - quarter - HAIR,
    ]);
    expect(taken[0]).toMatchObject({ midi: 60, bent: 2 });
  });
});

test('a stroke is of the count within 15 hundredths of one of its beats, not on the first of the music', () => {
  const near = 0.15 * BEAT;
  expect(isOfCount(-2 * BEAT)).toBe(true);
  expect(isOfCount(-2 * BEAT + near - HAIR)).toBe(true);
  expect(isOfCount(-2 * BEAT - near + HAIR)).toBe(true);
  expect(isOfCount(-2 * BEAT + near)).toBe(false);
  expect(isOfCount(-1.5 * BEAT)).toBe(false);
  expect(isOfCount(-near + HAIR)).toBe(false);
  expect(isOfCount(0)).toBe(false);
  expect(isOfCount(BEAT)).toBe(false);
});

test('a pass is heard by half beats, as far as both the music and the ear have come', () => {
  expect(heardUpTo(3.4 * BEAT, 9 * BEAT)).toBe(3 * BEAT);
  expect(heardUpTo(3.5 * BEAT, 9 * BEAT)).toBe(3.5 * BEAT);
  expect(heardUpTo(9 * BEAT, 3.9 * BEAT)).toBe(3.5 * BEAT);
  expect(heardUpTo(9 * BEAT, -Infinity)).toBe(-Infinity);
});

test('the pass before is heard out once hearing is through, or in half of a short pass', () => {
  expect(isHeardOut(PASS, BEAT, BEAT)).toBe(true);
  expect(isHeardOut(PASS, BEAT - HAIR, BEAT)).toBe(false);
  expect(isHeardOut({ beats: BEAT }, BEAT / 2, BEAT)).toBe(true);
  expect(isHeardOut({ beats: BEAT }, BEAT / 2 - HAIR, BEAT)).toBe(false);
});

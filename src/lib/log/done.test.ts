import { expect, test } from 'vitest';
import type { Block } from '$core/log/blocks';
import { doneOf } from './done';
import { stintSchema, type StoredStint } from './messages';

const BEGUN = Date.parse('2026-06-15T18:00:00.400Z');
const BLOCK = { chart: 'c', exercise: 'targets', zone: { low: 5, high: 8 } } as Block;
const stint = (time: number, changed: object = {}): StoredStint => {
  const at = '2026-06-15T18:00:00+00:00';
  const played = {
    at,
    chart: 'c',
    exercise: 'targets',
    zone: BLOCK.zone,
    tempoFrom: 90,
    tempo: 90,
  };
  return {
    ...stintSchema.parse({ ...played, minutes: 2, ...changed }),
    id: 'a',
    time,
    revision: 1,
  };
};
const done = (...stints: readonly StoredStint[]) => doneOf([BLOCK], stints, BEGUN)[0];

test('what was played of a block since the session began counts, to the second', () => {
  expect(done(stint(BEGUN - 1_000), stint(BEGUN + 5))?.minutes).toBe(4);
  expect(done(stint(BEGUN - 1_001))?.minutes).toBe(0);
});

test('of another chart, exercise or zone nothing counts; of drills and licks the zone is of no moment', () => {
  const others = [{ chart: 'd' }, { exercise: 'free' }, { zone: { low: 5, high: 9 } }];
  for (const other of others) expect(done(stint(BEGUN, other))?.minutes).toBe(0);
  const drills = { ...BLOCK, exercise: 'drills' } as Block;
  const elsewhere = stint(BEGUN, {
    exercise: 'drills',
    chart: 'general',
    zone: { low: 0, high: 4 },
  });
  expect(doneOf([drills], [elsewhere], BEGUN)[0]?.minutes).toBe(2);
});

test('targets are summed where somebody listened', () => {
  const { asked, landed } = done(
    stint(BEGUN, { asked: 8, landed: 6 }),
    stint(BEGUN),
    stint(BEGUN, { asked: 4, landed: 1 }),
  ) ?? { asked: 0, landed: 0 };
  expect([asked, landed]).toEqual([12, 7]);
  expect(done(stint(BEGUN))).toMatchObject({ asked: null, landed: null });
});

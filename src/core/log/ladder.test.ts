import { describe, expect, test } from 'vitest';
import { chartOf } from '$tests/laws';
import { at, range } from '../lists';
import { STANDARD_NECK } from '../neck/neck';
import { EXERCISES } from '../exercises/kinds';
import { ladderOf } from './ladder';
import { practiceChart, PROGRESSION } from './practice';
import { nextSession } from './session';
import { FREE } from './stints';
import { coverageOf, RUNGS, type Stint } from './stints';

const CHART = practiceChart(
  'one',
  chartOf('title: Kettle Street\nkey: C\ntempo: 120\n| Dm7 | G7 | Cmaj7 | A7 |'),
  STANDARD_NECK,
);
const OTHER = practiceChart('two', chartOf('key: F\n| Fmaj7 | C7 |'), STANDARD_NECK);
const NOW = Date.parse('2026-03-20T18:00:00Z');

/** Stints of an exercise on so many days, so many of ten targets landed. */
const played = (
  exercise: string,
  days: number,
  landed: number,
  zone = at(CHART.zones, 1),
  chart = 'one',
): readonly Stint[] =>
  range(0, days).map((day) => ({
    at: `2026-03-${String(10 + day).padStart(2, '0')}T18:00:00+00:00`,
    chart,
    exercise,
    zone,
    tempo: 90,
    minutes: 5,
    asked: 10,
    landed,
  }));
const cells = (history: readonly Stint[]) => coverageOf([CHART, OTHER], PROGRESSION, history, NOW);
const ladder = (history: readonly Stint[]) => {
  const found = ladderOf(CHART, cells(history));
  if (!found) throw new Error('no ladder');
  return found;
};

describe('the ladder of a chart', () => {
  test('every rung is an exercise, the last is free', () => {
    expect(RUNGS.at(-1)).toBe(FREE);
    for (const rung of RUNGS.slice(0, -1)) expect(EXERCISES).toContain(rung);
    expect(PROGRESSION.slice(0, RUNGS.length - 1)).toEqual(RUNGS.slice(0, -1));
  });

  test('begins with its first rung, in the first zone, slower than the chart', () => {
    const { zone, rungs, now } = ladder([]);
    expect(zone).toEqual(CHART.zones[0]);
    expect(now).toBe(0);
    expect(rungs.map(({ opened }) => opened)).toEqual(RUNGS.map((_, place) => place === 0));
    expect(rungs[0]?.tempo).toBe(84);
  });

  test('a rung is opened by the one before being solid, and by nothing less', () => {
    expect(ladder(played('roots', 2, 10)).now).toBe(0);
    expect(ladder(played('roots', 3, 8)).now).toBe(0);
    const { now, rungs, zone } = ladder(played('roots', 3, 9));
    expect(zone).toEqual(CHART.zones[1]);
    expect(now).toBe(1);
    expect(rungs.map(({ opened }) => opened)).toEqual(RUNGS.map((_, place) => place <= 1));
    // What was played of the chart last says where, until a rung was.
    expect(ladder(played('targets', 2, 9, at(CHART.zones, 3))).zone).toEqual(CHART.zones[3]);
    expect(
      ladder([...played('targets', 4, 9, at(CHART.zones, 3)), ...played('roots', 2, 9)]).zone,
    ).toEqual(CHART.zones[1]);
    // Another zone or another chart is another ladder.
    const elsewhere = played('thirds', 3, 10, at(CHART.zones, 2));
    expect(ladder([...elsewhere, ...played('roots', 4, 9)]).now).toBe(1);
    expect(ladder(played('roots', 3, 9, at(CHART.zones, 1), 'two')).now).toBe(0);
  });

  test('who jumps ahead finds the rung open, and is still shown the first that is not solid', () => {
    const { now, rungs } = ladder([...played('connecting', 1, 10)]);
    expect(now).toBe(0);
    expect(rungs.map(({ opened }) => opened)).toEqual(
      RUNGS.map((_, place) => place === 0 || RUNGS[place] === 'connecting'),
    );
  });

  test('with all of them solid it ends in playing freely', () => {
    const all = RUNGS.flatMap((rung) => played(rung, 3, 10));
    expect(ladder(all).now).toBe(RUNGS.length - 1);
  });

  test('the next session follows it', () => {
    const fresh = (history: readonly Stint[]) =>
      nextSession({
        charts: [CHART, OTHER],
        exercises: PROGRESSION,
        history,
        minutes: 20,
        now: NOW,
      }).blocks.find(({ reason }) => reason.startsWith('New: '));
    for (const place of range(0, RUNGS.length - 2)) {
      const solid = RUNGS.slice(0, place + 1).flatMap((rung) => played(rung, 3, 10));
      expect(fresh(solid)).toMatchObject({
        chart: 'one',
        exercise: RUNGS[place + 1],
        zone: CHART.zones[1],
        reason: expect.stringContaining('ladder'),
      });
    }
    // A rung that is not solid opens none: something beside it is new.
    const begun = fresh(played('roots', 2, 10));
    expect(begun?.exercise).not.toBe('thirds');
    // The first session of all begins at the bottom and does not skip a rung.
    const first = nextSession({
      charts: [CHART],
      exercises: PROGRESSION,
      history: [],
      minutes: 20,
      now: NOW,
    }).blocks.map(({ exercise }) => exercise);
    expect(first[0]).toBe('roots');
    expect(first).not.toContain('thirds');
  });
});

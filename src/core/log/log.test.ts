import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { range } from '../lists';
import { hashed } from '../random';
import { type Block, lengthened } from './blocks';
import type { PracticeChart } from './practice';
import { nextSession } from './session';
import { tempoFor } from './tempos';
import { cellKey, coverageOf, stateOf, type Stint } from './stints';

const ZONES = range(0, 5).map((index) => ({ low: 1 + 2 * index, high: 5 + 2 * index }));
const EXERCISES = ['targets', 'ascending', 'descending', 'degrees'];
const chart = (id: string): PracticeChart => ({
  id,
  title: id,
  tempo: 120,
  zones: ZONES,
  change: 2,
});
const charts = [chart('Lamplight'), chart('Harbour')];
const NOW = Date.parse('2026-06-15T18:00:00+02:00');
const DAY = 86_400_000;
const stint = (daysAgo: number, more: Partial<Stint> = {}): Stint => ({
  at: new Date(NOW - daysAgo * DAY).toISOString(),
  chart: 'Lamplight',
  exercise: 'targets',
  zone: ZONES[0] ?? { low: 1, high: 5 },
  tempo: 100,
  minutes: 5,
  asked: 20,
  landed: 20,
  ...more,
});

describe('coverage', () => {
  test.each([
    ['untouched', []],
    ['new', [stint(1)]],
    ['new', [stint(2), stint(1)]],
    ['new', [stint(1), stint(1.01), stint(1.02)]],
    ['new', [stint(1, { asked: undefined, landed: undefined })]],
    ['solid', [stint(3), stint(2), stint(1)]],
    ['solid', [stint(9, { landed: 5 }), stint(3), stint(2), stint(1)]],
    ['shaky', [stint(1, { landed: 14 })]],
    ['shaky', [stint(4), stint(3), stint(2), stint(1, { landed: 0, asked: 60 })]],
    ['stale', [stint(30), stint(29), stint(22)]],
    ['stale', [stint(21 + 1 / DAY)]],
    ['new', [stint(21)]],
    // Three quarters are not shaky, nine tenths are good.
    ['new', [stint(1, { landed: 15 })]],
    ['solid', [stint(3, { landed: 18 }), stint(2, { landed: 18 }), stint(1, { landed: 18 })]],
    ['new', [stint(3, { landed: 17 }), stint(2, { landed: 18 }), stint(1, { landed: 18 })]],
    // Of late are the last three that were counted.
    [
      'shaky',
      [stint(9), stint(3, { landed: 14 }), stint(2, { landed: 14 }), stint(1, { landed: 14 })],
    ],
    [
      'new',
      [stint(9, { landed: 0 }), stint(3, { landed: 15 }), stint(2, { landed: 15 }), stint(1)],
    ],
    // More landed than asked is all of them.
    ['shaky', [stint(2, { landed: 8 }), stint(1, { asked: 2, landed: 90 })]],
    ['new', [stint(-2)]],
  ] as const)('is %s', (state, stints) => {
    expect(stateOf(stints, NOW)).toBe(state);
  });

  test('has a cell for each exercise of each chart in each zone, and for what else was played', () => {
    const odd = { low: 0, high: 12 };
    const history = [stint(1), stint(2, { zone: odd }), stint(1, { chart: 'gone' })];
    const cells = coverageOf(charts, EXERCISES, history, NOW);
    expect(cells).toHaveLength(2 * 4 * 5 + 1);
    expect(cells.filter(({ state }) => state === 'new')).toHaveLength(2);
    expect(cells.at(-1)).toMatchObject({ zone: odd, minutes: 5 });
  });

  test('days are those of the place where it was written', () => {
    const late = [
      '2026-06-10T23:30:00-07:00',
      '2026-06-11T00:30:00-07:00',
      '2026-06-12T09:00:00-07:00',
    ];
    const played = late.map((moment) => stint(0, { at: moment }));
    expect(stateOf(played, NOW)).toBe('solid');
    const together = late.map((_, index) => stint(0, { at: `2026-06-11T0${index}:30:00+09:00` }));
    expect(stateOf(together, NOW)).toBe('new');
  });
});

describe('tempo', () => {
  test.each([
    ['up after two clean', [stint(2), stint(1)], 104],
    ['as it was after one', [stint(1)], 100],
    ['down after two poor', [stint(2, { landed: 9 }), stint(1, { landed: 9 })], 96],
    ['as it was after one poor', [stint(2), stint(1, { landed: 9 })], 100],
    ['slow where it is new', [], 84],
  ] as const)('%s', (_, stints, tempo) => {
    expect(tempoFor(stints, 120)).toBe(tempo);
  });
});

const histories = fc.array(
  fc.record({
    daysAgo: fc.integer({ min: -3, max: 4_000 }),
    chart: fc.constantFrom('Lamplight', 'Harbour', 'gone'),
    exercise: fc.constantFrom(...EXERCISES, 'free', 'an older exercise'),
    zone: fc.constantFrom(...ZONES, { low: 0, high: 3 }),
    tempo: fc.integer({ min: 40, max: 240 }),
    minutes: fc.integer({ min: 0, max: 60 }),
    landed: fc.option(fc.integer({ min: 0, max: 20 }), { nil: undefined }),
  }),
  { maxLength: 120 },
);

describe('the next session', () => {
  const ask = (history: readonly Stint[], minutes = 20, of = charts) =>
    nextSession({ charts: of, exercises: EXERCISES, history, minutes, now: NOW });

  test('fills its minutes in two zones at the most, whatever was played', () => {
    fc.assert(
      fc.property(histories, fc.integer({ min: 1, max: 240 }), (played, minutes) => {
        const history = played.map(({ daysAgo, ...more }) => stint(daysAgo, more));
        const { blocks } = ask(history, minutes);
        expect(blocks.length).toBeGreaterThan(0);
        expect(blocks.reduce((sum, one) => sum + one.minutes, 0)).toBe(minutes);
        for (const block of blocks) {
          expect(block.minutes).toBeGreaterThan(0);
          expect(charts.map(({ id }) => id)).toContain(block.chart);
          expect(block.tempo).toBeGreaterThanOrEqual(20);
          expect(block.reason).not.toMatch(/undefined|NaN|Infinity/u);
        }
        expect(new Set(blocks.map(({ zone }) => `${zone.low}`)).size).toBeLessThanOrEqual(2);
        // Nothing is asked for twice.
        const keys = blocks.map((one) => cellKey(one.chart, one.exercise, one.zone));
        expect(new Set(keys).size).toBe(keys.length);
      }),
    );
  });

  test('warms up on what is solid, mends what is shaky, adds what is next, and plays', () => {
    const second = ZONES[1] ?? { low: 3, high: 7 };
    const history = [
      ...[4, 3, 2].map((day) => stint(day)),
      stint(2, { exercise: 'ascending', zone: second, tempo: 90 }),
      stint(1, { exercise: 'ascending', zone: second, tempo: 110, landed: 8 }),
      stint(0.9, { exercise: 'ascending', zone: second, tempo: 110, landed: 9 }),
    ];
    const { blocks } = ask(history);
    expect(blocks.map(({ exercise }) => exercise)).toEqual([
      'targets',
      'ascending',
      expect.any(String),
      'free',
    ]);
    expect(blocks[0]?.reason).toContain('solid');
    // At most as fast as it was clean.
    expect(blocks[1]?.tempo).toBeLessThanOrEqual(90);
    expect(blocks[1]?.reason).toContain(
      'shaky: 62 % of its targets landed lately. Two chords at a time, at a tempo',
    );
    expect(blocks[2]?.reason).toMatch(/^New: /u);
  });

  test.each([
    // All the way from what was played to slow is 40 beats a minute from 120.
    [0, 89],
    [4, 96],
    [10, 106],
    [14, 113],
    // Three quarters are not shaky: it goes on as it was.
    [15, 120],
  ])('the worse it went the slower it comes: %i of 20 at 120', (landed, tempo) => {
    const { blocks } = ask([stint(1, { landed, tempo: 120 })]);
    expect(blocks.find(({ exercise }) => exercise === 'targets')?.tempo).toBe(tempo);
  });

  test('slower than slow, it still comes slower; never faster than it was clean', () => {
    const at = (...history: readonly Stint[]) =>
      ask(history).blocks.find(({ exercise }) => exercise === 'targets')?.tempo;
    expect(at(stint(1, { landed: 4, tempo: 60 }))).toBe(53);
    expect(at(stint(3, { tempo: 80 }), stint(1, { asked: 80, landed: 40, tempo: 120 }))).toBe(80);
  });

  test('where there is history one block is new, whatever it is of', () => {
    fc.assert(
      fc.property(histories, fc.integer({ min: 4, max: 90 }), (played, minutes) => {
        const history = played.map(({ daysAgo, ...more }) => stint(daysAgo, more));
        const { blocks, coverage } = ask(history, minutes);
        const zones = blocks.map(({ zone }) => zone.low);
        const left = coverage.some(
          ({ state, zone }) => state === 'untouched' && zones.includes(zone.low),
        );
        if (!left) return;
        const fresh = blocks.filter(({ reason }) => reason.startsWith('New: '));
        expect(fresh).toHaveLength(1);
        const cell = coverage.find(
          (one) =>
            one.chart === fresh[0]?.chart &&
            one.exercise === fresh[0].exercise &&
            one.zone.low === fresh[0].zone.low,
        );
        expect(cell?.state).toBe('untouched');
      }),
    );
  });

  test('drills come back as drills: no tempo of theirs is anybody’s', () => {
    const drills = [
      stint(2, { exercise: 'drills', tempo: 1, landed: 4 }),
      stint(1, { exercise: 'drills', tempo: 1, landed: 5 }),
    ];
    const { blocks } = ask(drills);
    const block = blocks.find(({ exercise }) => exercise === 'drills');
    expect(block).toMatchObject({ extent: 'form', tempo: 120 });
    expect(block?.reason).toBe('This is shaky: 23 % of its cards right lately.');
    for (const { tempo } of blocks) expect(tempo).toBeGreaterThanOrEqual(70);
    const solid = [4, 3, 2].map((day) => stint(day, { exercise: 'drills', tempo: 1 }));
    for (const { tempo } of ask(solid).blocks) expect(tempo).toBeGreaterThanOrEqual(70);
  });

  test('something stale is brought back', () => {
    const { blocks } = ask([30, 29, 28].map((day) => stint(day)));
    expect(blocks.some(({ reason }) => reason.includes('has not been played for 28 days'))).toBe(
      true,
    );
  });

  test('without history it begins slowly; without charts or minutes there is nothing', () => {
    const { blocks } = ask([]);
    expect(blocks[0]).toMatchObject({ extent: 'chord', index: 2, tempo: 72 });
    expect(blocks.at(-1)).toMatchObject({ exercise: 'free', extent: 'form' });
    // It rises, and is not at the chart's own tempo on the first day.
    expect(blocks.map(({ tempo }) => tempo)).toEqual([72, 79, 90]);
    expect(ask([], 20, []).blocks).toEqual([]);
    expect(ask([], 0).blocks).toEqual([]);
  });
});

/**
 * A player of sixty days: each thing has a skill that grows with practice, the sooner the easier it
 * is to him, and fades while it rests; what is far from all he knows grows slowly.
 */
function sixtyDays(seed: number, choose: Strategy): number {
  const skill = new Map<string, number>();
  const history: Stint[] = [];
  const start = Date.parse('2026-01-01T18:00:00Z');
  for (let day = 0; day < 60; day++) {
    const now = start + day * DAY;
    for (const [key, value] of skill) skill.set(key, value * 0.985);
    // Days off, now and then.
    if (hashed(seed, day, 1) < 0.2) continue;
    for (const { exercise, zone, chart: of, minutes } of choose(history, now)) {
      if (exercise === 'free') continue;
      const key = cellKey(of, exercise, zone);
      const talent = 0.5 + hashed(seed, EXERCISES.indexOf(exercise), zone.low, 2);
      const beside = ZONES.filter(({ low }) => Math.abs(low - zone.low) <= 2);
      const known = Math.max(
        0,
        ...beside.map((one) => skill.get(cellKey(of, exercise, one)) ?? 0),
        ...EXERCISES.map((one) => skill.get(cellKey(of, one, zone)) ?? 0),
      );
      const before = skill.get(key) ?? 0.3 * known;
      const after = before + (1 - before) * (1 - Math.exp(-0.09 * minutes * talent));
      skill.set(key, after);
      const asked = 20;
      const landed = range(0, asked).filter(
        (one) => hashed(seed, day, one, history.length) < 0.35 + 0.65 * after,
      ).length;
      history.push({
        at: new Date(now).toISOString(),
        chart: of,
        exercise,
        zone,
        tempo: 100,
        minutes,
        asked,
        landed,
      });
    }
  }
  const cells = coverageOf(charts, EXERCISES, history, start + 60 * DAY);
  return cells.filter(({ state }) => state === 'solid').length;
}

type Strategy = (
  history: readonly Stint[],
  now: number,
) => readonly Pick<Stint, 'chart' | 'exercise' | 'zone' | 'minutes'>[];

const STRATEGIES: Readonly<Record<string, Strategy>> = {
  corvel: (history, now) =>
    nextSession({ charts, exercises: EXERCISES, history, minutes: 20, now }).blocks,
  'always new': (history, now) => {
    const cells = coverageOf(charts, EXERCISES, history, now);
    const fresh = cells.toSorted((a, b) => a.stints.length - b.stints.length);
    return fresh.slice(0, 3).map((cell) => ({ ...cell, minutes: 20 / 3 }));
  },
  'always weakest': (history, now) => {
    const share = ({ stints }: { stints: readonly Stint[] }) => (stints.at(-1)?.landed ?? 0) / 20;
    const cells = coverageOf(charts, EXERCISES, history, now).toSorted(
      (a, b) => share(a) - share(b),
    );
    return cells.slice(0, 3).map((cell) => ({ ...cell, minutes: 20 / 3 }));
  },
  'round and round': (history, now) => {
    const cells = coverageOf(charts, EXERCISES, history, now);
    const from = history.length % cells.length;
    return [...cells, ...cells].slice(from, from + 3).map((cell) => ({ ...cell, minutes: 20 / 3 }));
  },
};

test('sixty days as Corvel proposes leave more solid than three plain strategies', () => {
  const seeds = [1, 2, 3, 4, 5, 6];
  const mean = Object.fromEntries(
    Object.entries(STRATEGIES).map(([name, choose]) => [
      name,
      seeds.reduce((sum, seed) => sum + sixtyDays(seed, choose), 0) / seeds.length,
    ]),
  );
  for (const name of ['always new', 'always weakest', 'round and round'])
    expect(mean['corvel']).toBeGreaterThan(mean[name] ?? 0);
});

describe('a block made longer', () => {
  const blocks = [3, 7, 5, 5].map((minutes, index): Block => {
    const zone = { low: 5, high: 8 };
    return {
      minutes,
      chart: 'a',
      exercise: `e${index}`,
      zone,
      extent: 'form',
      tempo: 90,
      reason: '',
    };
  });
  const minutesOf = (list: readonly Block[]) => list.map(({ minutes }) => minutes);

  test.each([
    [0, 2, [5, 5, 5, 5]],
    [1, 2, [3, 9, 4, 4]],
    [2, 4, [3, 7, 9, 1]],
    // The last takes its time from none: the session is longer.
    [3, 2, [3, 7, 5, 7]],
    [1, 20, [3, 27, 1, 1]],
    [-1, 2, [3, 7, 5, 5]],
  ])('takes its time from those after it: %i by %i', (place, by, minutes) => {
    expect(minutesOf(lengthened(blocks, place, by))).toEqual(minutes);
  });
});

import { rollup, sum } from 'd3-array';
import { group } from '$core/lists';
import { ladderOf } from '$core/log/ladder';
import { dayOf } from '$core/time/moments';
import { isoWeek } from '$lib/log/weeks';
import { takenIn } from '$lib/server/archive/take';
import { listStints } from '$lib/server/stints';
import { askedSession, practiceCharts, sessionOf } from '$lib/server/session';
import { doneOf } from '$lib/log/done';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

/** Stints shown day by day; all of them count. */
const SHOWN = 200;
const DAY = 86_400_000;

export const load: PageServerLoad = async ({ url, locals }) => {
  const db = database(locals);
  const { settings } = await findSettings(db);
  const [charts, stints] = await Promise.all([practiceCharts(db, settings), listStints(db)]);
  const now = Date.now();
  const { blocks, coverage, minutes, skipped, begun } = askedSession(
    charts,
    stints,
    url.searchParams,
    now,
  );
  const byChart = group(coverage, ({ chart }) => chart);
  const ladders = Object.fromEntries(
    charts.flatMap((chart) => {
      const ladder = ladderOf(chart, byChart.get(chart.id) ?? []);
      return ladder ? [[chart.id, ladder] as const] : [];
    }),
  );
  const over = begun !== null && url.searchParams.has('over');
  const days = rollup(
    stints,
    (ofDay) => sum(ofDay, (stint) => stint.minutes),
    (stint) => dayOf(stint.at),
  );
  const weeks = Object.fromEntries(
    rollup(
      days,
      (ofWeek) => sum(ofWeek, ([, played]) => played),
      ([day]) => isoWeek(day),
    ),
  );
  return {
    charts: charts.map(({ id, title, zones, tempo, change }) => ({
      id,
      title,
      zones,
      tempo,
      change,
    })),
    stints: stints.slice(0, SHOWN),
    count: stints.length,
    weeks,
    blocks,
    minutes,
    ladders,
    // What was never touched is known by its not being here.
    cells: coverage
      .filter(({ last }) => last !== null)
      .map(({ chart, exercise, zone, minutes: played, last, state, stints: own }) => ({
        chart,
        exercise,
        zone,
        minutes: played,
        last,
        state,
        tempos: own.slice(-12).map(({ at, tempo }) => ({ at, tempo })),
      })),
    skipped,
    taken: (await takenIn(db))?.at ?? null,
    over: over
      ? {
          done: doneOf(blocks, stints, begun),
          tomorrow:
            sessionOf(charts, stints, { minutes, now: now + DAY, skipped: new Set() }).blocks[0] ??
            null,
        }
      : null,
  };
};

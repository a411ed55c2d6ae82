import { rollup, sum } from 'd3-array';
import { lengthened } from '$core/log/session';
import { cellKey } from '$core/log/stints';
import { dayOf } from '$core/time/moments';
import { isoWeek } from '$lib/log/weeks';
import { listStints } from '$lib/server/stints';
import { practiceCharts, sessionOf } from '$lib/server/session';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

/** Stints shown day by day; all of them count. */
const SHOWN = 200;
const MINUTES = { usual: 20, most: 240 } as const;
/** How long a session that was begun may last, in milliseconds. */
const LASTS = 12 * 3_600_000;
/** Minutes by which a block is made longer. */
const LONGER = 2;

export const load: PageServerLoad = async ({ url, locals }) => {
  const db = database(locals);
  const { settings } = await findSettings(db);
  const [charts, stints] = await Promise.all([practiceCharts(db, settings), listStints(db)]);
  const asked = Number(url.searchParams.get('minutes') ?? MINUTES.usual);
  const minutes = Number.isFinite(asked)
    ? Math.max(1, Math.min(MINUTES.most, Math.round(asked)))
    : MINUTES.usual;
  const skipped = new Set(url.searchParams.getAll('skip'));
  const now = Date.now();
  const whole = sessionOf(charts, stints, { minutes, now, skipped });
  const { coverage } = whole;
  // One that was begun stays as it was proposed, whatever is in the log by now.
  const begun = Number(url.searchParams.get('at') ?? NaN);
  const before = stints.filter(({ at }) => Date.parse(at) < begun);
  const session =
    now - begun >= 0 && now - begun < LASTS
      ? sessionOf(charts, before, { minutes, now: begun, skipped })
      : whole;
  // Each is a cell that was made longer, as often as it was asked for.
  const blocks = url.searchParams.getAll('longer').reduce((made, key) => {
    const place = made.findIndex((one) => cellKey(one.chart, one.exercise, one.zone) === key);
    return lengthened(made, place, LONGER);
  }, session.blocks);
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
    // What was never touched is known by its not being here.
    cells: coverage
      .filter(({ last }) => last !== null)
      .map(({ chart, exercise, zone, minutes: played, last, state, stints: own }) => ({
        ...{ chart, exercise, zone, minutes: played, last, state },
        tempos: own.slice(-12).map(({ at, tempo }) => ({ at, tempo })),
      })),
    skipped: [...skipped],
  };
};

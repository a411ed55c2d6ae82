import { isoWeek } from '$lib/log/weeks';
import { listStints } from '$lib/server/stints';
import { practiceCharts, sessionOf } from '$lib/server/session';
import { database } from '$lib/server/respond';
import { findSettings } from '$lib/server/settings';
import type { PageServerLoad } from './$types';

/** Stints shown day by day; all of them count. */
const SHOWN = 200;
const MINUTES = { usual: 20, most: 240 } as const;

export const load: PageServerLoad = async ({ url, locals }) => {
  const db = database(locals);
  const { settings } = await findSettings(db);
  const [charts, stints] = await Promise.all([practiceCharts(db, settings), listStints(db)]);
  const asked = Number(url.searchParams.get('minutes') ?? MINUTES.usual);
  const minutes = Number.isFinite(asked)
    ? Math.max(1, Math.min(MINUTES.most, Math.round(asked)))
    : MINUTES.usual;
  const skipped = new Set(url.searchParams.getAll('skip'));
  const { blocks, coverage } = sessionOf(charts, stints, { minutes, now: Date.now(), skipped });
  const weeks: Record<string, number> = {};
  for (const stint of stints) {
    const week = isoWeek(stint.at);
    weeks[week] = (weeks[week] ?? 0) + stint.minutes;
  }
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

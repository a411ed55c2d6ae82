/** The next session and what is covered, worked out from the book and the log. */
import { rememberBy } from '$core/cache';
import { readChart } from '$core/chart/form';
import type { ExerciseKind } from '$core/exercises/kinds';
import { EXERCISE_WORDS } from '$core/exercises/words';
import { practiceChart, PROGRESSION } from '$core/log/practice';
import { nextSession, type PracticeChart, type Session } from '$core/log/session';
import type { StoredStint } from '$lib/log/messages';
import { instrumentOf, neckOf, type Settings } from '$lib/settings/settings';
import type { Db } from './database';
import { historyOf, listStints } from './stints';

export interface SessionWanted {
  readonly minutes: number;
  readonly now: number;
  /** Blocks the player does not want today, by the keys of their cells. */
  readonly skipped: ReadonlySet<string>;
}

const read = rememberBy(
  (id: string, revision: number, text: string, neck: ReturnType<typeof neckOf>) => {
    return `${id} ${revision} ${text.length} ${neck.tuning.join('-')} ${neck.frets} ${neck.capo}`;
  },
  (id, _revision, text, neck): PracticeChart | null => {
    const result = readChart(text);
    return result.ok && result.chart.chords.length > 0
      ? practiceChart(id, result.chart, neck)
      : null;
  },
);

/** The charts that can be practised, what was worked on last first. */
export async function practiceCharts(
  db: Db,
  settings: Settings,
): Promise<readonly PracticeChart[]> {
  const neck = neckOf(instrumentOf(settings, null));
  const rows = await db
    .selectFrom('chart')
    .select(['id', 'text', 'revision'])
    .where('deleted_at', 'is', null)
    .orderBy('updated_at', 'desc')
    .execute();
  return rows.flatMap(({ id, text, revision }) => read(id, revision, text, neck) ?? []);
}

/** The first thing of the next session in a line; null where there is none. */
export async function nextLine(db: Db, settings: Settings, now: number): Promise<string | null> {
  const stints = await listStints(db);
  const charts = await practiceCharts(db, settings);
  const { blocks } = sessionOf(charts, stints, { minutes: 20, now, skipped: new Set() });
  const lead = blocks[1] ?? blocks[0];
  const chart = charts.find(({ id }) => id === lead?.chart);
  if (!lead || !chart) return null;
  const name = EXERCISE_WORDS[lead.exercise as ExerciseKind]?.name ?? 'Free playing';
  return `${name} over ${chart.title}, frets ${lead.zone.low} to ${lead.zone.high}`;
}

export const sessionOf = (
  charts: readonly PracticeChart[],
  stints: readonly StoredStint[],
  { minutes, now, skipped }: SessionWanted,
): Session =>
  nextSession({
    charts,
    exercises: PROGRESSION,
    history: historyOf(stints),
    ...{ minutes, now, skipped },
    nameOf: (name) => EXERCISE_WORDS[name as ExerciseKind]?.name ?? name,
  });

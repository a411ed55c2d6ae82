/** The next session and what is covered, worked out from the book and the log. */
import { rememberBy } from '$core/cache';
import { readChart } from '$core/chart/form';
import { practiceChart, PROGRESSION } from '$core/log/practice';
import { lengthened } from '$core/log/blocks';
import { nextSession, type Session } from '$core/log/session';
import type { PracticeChart } from '$core/log/practice';
import { cellKey } from '$core/log/stints';
import type { StoredStint } from '$lib/log/messages';
import { exerciseName } from '$lib/log/words';
import { instrumentOf, neckOf, type Settings } from '$lib/settings/settings';
import { sql } from 'kysely';
import type { Db } from './database';
import { bytesOf, decode } from './texts';
import { historyOf, listStints } from './stints';

interface SessionWanted {
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

/**
 * Of a large book those count that were practised last, and those that were worked on last: a session is
 * made of these, and what is covered is shown of these.
 */
const PRACTISED = 60;
const WORKED_ON = 20;
/** Milliseconds of reading charts after which others are served. */
const SLICE = 8;

/** The charts that can be practised, what was worked on last first. */
export async function practiceCharts(
  db: Db,
  settings: Settings,
): Promise<readonly PracticeChart[]> {
  const neck = neckOf(instrumentOf(settings, null));
  const rows = await db
    .selectFrom('chart')
    .select([bytesOf('id').as('id'), bytesOf('text').as('text')])
    .select(sql<number>`cast(revision as integer)`.as('revision'))
    .where('deleted_at', 'is', null)
    .where(
      sql<boolean>`id in (
        select chart from stint where deleted_at is null
        group by chart order by max(time) desc limit ${PRACTISED}
      ) or id in (
        select id from chart where deleted_at is null order by updated_at desc limit ${WORKED_ON}
      )`,
    )
    .orderBy('updated_at', 'desc')
    .execute();
  const charts: PracticeChart[] = [];
  let since = performance.now();
  for (const { id, text, revision } of rows) {
    const chart = read(decode(id)?.text ?? '', revision, decode(text)?.text ?? '', neck);
    if (chart) charts.push(chart);
    if (performance.now() - since < SLICE) continue;
    await new Promise(setImmediate);
    since = performance.now();
  }
  return charts;
}

/** The first thing of the next session in a line; null where there is none. */
export async function nextLine(db: Db, settings: Settings, now: number): Promise<string | null> {
  const stints = await listStints(db);
  const charts = await practiceCharts(db, settings);
  const { blocks } = sessionOf(charts, stints, { minutes: 20, now, skipped: new Set() });
  const lead = blocks[1] ?? blocks[0];
  const chart = charts.find(({ id }) => id === lead?.chart);
  if (!lead || !chart) return null;
  return `${exerciseName(lead.exercise)} over ${chart.title}, frets ${lead.zone.low} to ${lead.zone.high}`;
}

const MINUTES = { usual: 20, most: 240 } as const;
/** How long a session that was begun may last, in milliseconds. */
const LASTS = 12 * 3_600_000;
/** Minutes by which a block is made longer. */
const LONGER = 2;

interface AskedSession extends Session {
  readonly minutes: number;
  readonly skipped: readonly string[];
  /** When it was begun, in milliseconds; null where it was not. */
  readonly begun: number | null;
}

/**
 * The session an address asks for: `minutes`, what is put off with `skip`, made longer with `longer`. One
 * that was begun (`at`) stays as it was proposed, whatever is in the log by now; what is covered is of now.
 */
export function askedSession(
  charts: readonly PracticeChart[],
  stints: readonly StoredStint[],
  asked: URLSearchParams,
  now: number,
): AskedSession {
  const wanted = Number(asked.get('minutes') ?? MINUTES.usual);
  const minutes = Number.isFinite(wanted)
    ? Math.max(1, Math.min(MINUTES.most, Math.round(wanted)))
    : MINUTES.usual;
  const skipped = new Set(asked.getAll('skip'));
  const whole = sessionOf(charts, stints, { minutes, now, skipped });
  const at = Number(asked.get('at') ?? NaN);
  const begun = now - at >= 0 && now - at < LASTS ? at : null;
  const before = stints.filter(({ time }) => time < at);
  const { blocks: proposed } =
    begun === null ? whole : sessionOf(charts, before, { minutes, now: begun, skipped });
  // Each is a cell that was made longer, as often as it was asked for.
  const blocks = asked.getAll('longer').reduce((made, key) => {
    const place = made.findIndex((one) => cellKey(one.chart, one.exercise, one.zone) === key);
    return lengthened(made, place, LONGER);
  }, proposed);
  return { blocks, coverage: whole.coverage, minutes, skipped: [...skipped], begun };
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
    minutes,
    now,
    skipped,
    nameOf: exerciseName,
  });

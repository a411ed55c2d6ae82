/** What was practised, in the database: stints, soft deleted as charts are. */
import { dequal } from 'dequal/lite';
import { type RawBuilder, sql } from 'kysely';
import type { Stint } from '$core/log/stints';
import { LOG_LIMIT, type StintContent, stintSchema, type StoredStint } from '$lib/log/messages';
import { elementsOf, NoList } from './archive/json';
import { newId, timestamp } from './charts';
import { commitTogether, outcomeOf, type Saved } from './commits';
import type { Db } from './database';
import { decode } from './texts';

const rowOf = ({ zone, tempoFrom, ...stint }: StintContent) => ({
  at: stint.at,
  time: Date.parse(stint.at),
  chart: stint.chart,
  exercise: stint.exercise,
  low: zone.low,
  high: zone.high,
  extent: stint.extent,
  tempo_from: tempoFrom,
  tempo: stint.tempo,
  minutes: stint.minutes,
  asked: stint.asked,
  landed: stint.landed,
  note: stint.note,
  earlier_rule: stint.earlierRule === true ? 1 : 0,
});

type Packed = readonly [
  ...[id: string, at: string, chart: string, exercise: string, low: number, high: number],
  ...[extent: StoredStint['extent'], tempoFrom: string, tempo: string, minutes: string],
  ...[asked: number | null, landed: number | null, note: string, time: number],
  ...[earlier: number, revision: number],
];

function stintOf(packed: Packed): StoredStint {
  const [id, at, chart, exercise, low, high, extent, tempoFrom, tempo, minutes] = packed;
  const [, , , , , , , , , , asked, landed, note, time, earlier, revision] = packed;
  // A plain literal: there are ten thousands of them.
  const stint: StoredStint = {
    id,
    at,
    chart,
    exercise,
    zone: { low, high },
    extent,
    tempoFrom: Number(tempoFrom),
    tempo: Number(tempo),
    minutes: Number(minutes),
    asked,
    landed,
    note,
    time,
    revision,
  };
  return earlier === 1 ? { ...stint, earlierRule: true } : stint;
}

/** A number with every digit: SQLite's own JSON has fifteen, and what was sent again would be another. */
const exactly = (column: string) => sql`printf('%!.17g', ${sql.ref(column)})`;

/** Stints by a condition, the newest first. They come as one text, since the driver hands over cell by cell. */
async function stintsWhere(
  db: Db,
  where: RawBuilder<unknown>,
  limit = -1,
): Promise<readonly StoredStint[]> {
  const { rows } = await sql<{ readonly packed: ArrayBuffer | null }>`
    select cast(json_group_array(json_array(
      id, at, chart, exercise, low, high, extent, ${exactly('tempo_from')}, ${exactly('tempo')},
      ${exactly('minutes')}, asked, landed, note, time, earlier_rule, revision
    )) as blob) as packed
    from (
      select * from stint where deleted_at is null and ${where}
      order by time desc, id desc limit ${limit}
    )
  `.execute(db);
  const packed = decode(rows[0]?.packed ?? null)?.text ?? '[]';
  return (JSON.parse(packed) as readonly Packed[]).map(stintOf);
}

/** Stints that are read in one go; others are served in between. */
const PORTION = 2_000;
const EARLIEST = -8.64e15;

/** Stints since a time in milliseconds, the newest first, in portions. */
export async function* readStints(
  db: Db,
  since = EARLIEST,
): AsyncGenerator<readonly StoredStint[]> {
  let before = sql`time >= ${since}`;
  for (;;) {
    const portion = await stintsWhere(db, before, PORTION);
    yield portion;
    const last = portion.at(-1);
    if (!last || portion.length < PORTION) return;
    before = sql`time >= ${since} and (time, id) < (${last.time}, ${last.id})`;
    await new Promise(setImmediate);
  }
}

/** The stints next before one, the newest first. */
export const stintsBefore = (
  db: Db,
  { time, id }: Pick<StoredStint, 'time' | 'id'>,
  limit: number,
): Promise<readonly StoredStint[]> => stintsWhere(db, sql`(time, id) < (${time}, ${id})`, limit);

/** All of them as one list. */
export async function listStints(db: Db, since?: number): Promise<readonly StoredStint[]> {
  const all: StoredStint[] = [];
  for await (const portion of readStints(db, since)) all.push(...portion);
  return all;
}

/** Whether anything is in the log. */
export async function isAnyPractised(db: Db): Promise<boolean> {
  const query = db
    .selectFrom('stint')
    .select(sql`1`.as('one'))
    .where('deleted_at', 'is', null)
    .limit(1);
  return (await query.executeTakeFirst()) !== undefined;
}

/** The whole history as coverage and sessions are worked out from it. */
export const historyOf = (stints: readonly StoredStint[]): readonly Stint[] =>
  stints.map(({ at, time, chart, exercise, zone, tempo, minutes, asked, landed }) => ({
    at,
    time,
    chart,
    exercise,
    zone,
    tempo,
    minutes,
    asked: asked ?? undefined,
    landed: landed ?? undefined,
  }));

/** What tells stints apart that were written out and are taken in. */
const keyOf = (one: Pick<StintContent, 'at' | 'chart' | 'exercise'>) =>
  `${Date.parse(one.at)} ${one.chart} ${one.exercise}`;

export type LogTaken =
  | { readonly kind: 'log'; readonly added: number; readonly known: number }
  | { readonly kind: 'refused'; readonly message: string };

/** Takes a log that was written out; what is there already is not added again, and of a wrong one nothing. */
export async function takeLog(db: Db, pieces: AsyncIterable<Uint8Array>): Promise<LogTaken> {
  const read: StintContent[] = [];
  try {
    for await (const one of elementsOf(pieces, '$.stints.*')) {
      const stint = stintSchema.safeParse(one);
      if (!stint.success) {
        const path = ['stints', read.length, ...(stint.error.issues[0]?.path ?? [])].join('.');
        return { kind: 'refused', message: `“${path}” is not as a log has it.` };
      }
      if (read.length >= LOG_LIMIT)
        return { kind: 'refused', message: `A log holds at most ${LOG_LIMIT} entries.` };
      read.push(stint.data);
    }
  } catch (error) {
    if (!(error instanceof NoList)) throw error;
    return { kind: 'refused', message: 'This is no log: it has no list of stints in JSON.' };
  }
  const known = new Set<string>();
  for await (const portion of readStints(db)) for (const one of portion) known.add(keyOf(one));
  const fresh = read.filter((stint) => !known.has(keyOf(stint)));
  await addStints(db, fresh);
  return { kind: 'log', added: fresh.length, known: read.length - fresh.length };
}

export async function addStints(
  db: Db,
  stints: readonly StintContent[],
): Promise<readonly string[]> {
  const rows = stints.map((stint) => ({ id: newId(), ...rowOf(stint), deleted_at: null }));
  await commitTogether(db, async (transaction) => {
    // SQLite bounds what one statement may hold.
    for (let from = 0; from < rows.length; from += 500)
      await transaction
        .insertInto('stint')
        .values(rows.slice(from, from + 500))
        .execute();
  });
  return rows.map(({ id }) => id);
}

type StintSaved = Saved<StoredStint>;

/** One stint that is not put away. */
const findStint = async (db: Db, id: string): Promise<StoredStint | null> =>
  (await stintsWhere(db, sql`id = ${id}`))[0] ?? null;

/**
 * Saves a stint made on `revision`, where 0 makes it; refuses, with what stands now, when that is stale. What
 * stands there already as it is sent was sent twice, and is saved.
 */
export const saveStint = (
  db: Db,
  id: string,
  revision: number,
  stint: StintContent,
): Promise<StintSaved> =>
  commitTogether(db, async (transaction): Promise<StintSaved> => {
    const row = { ...rowOf(stint), revision: revision + 1 };
    const saved =
      revision === 0
        ? await transaction
            .insertInto('stint')
            .values({ id, ...row, deleted_at: null })
            .onConflict((conflict) => conflict.doNothing())
            .executeTakeFirst()
            .then(({ numInsertedOrUpdatedRows }) => numInsertedOrUpdatedRows ?? 0n)
        : await transaction
            .updateTable('stint')
            .set(row)
            .where('id', '=', id)
            .where('revision', '=', revision)
            .where('deleted_at', 'is', null)
            .executeTakeFirst()
            .then(({ numUpdatedRows }) => numUpdatedRows);
    return outcomeOf(saved > 0n, {
      revision,
      find: () => findStint(transaction, id),
      same: (current) => dequal(rowOf(current), rowOf(stint)),
    });
  });

const mark = (db: Db, id: string, deleted: string | null): Promise<boolean> =>
  commitTogether(db, async (transaction) => {
    const result = await transaction
      .updateTable('stint')
      .set({ deleted_at: deleted })
      .where('id', '=', id)
      .where('deleted_at', deleted === null ? 'is not' : 'is', null)
      .executeTakeFirst();
    return result.numUpdatedRows > 0n;
  });

/** Hides a stint; {@link restoreStint} brings it back. */
export const deleteStint = (db: Db, id: string): Promise<boolean> => mark(db, id, timestamp());
export const restoreStint = (db: Db, id: string): Promise<boolean> => mark(db, id, null);

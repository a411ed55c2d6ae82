/** What was practised, in the database: stints, soft deleted as charts are. */
import { sql } from 'kysely';
import type { Stint } from '$core/log/stints';
import type { StintContent, StoredStint } from '$lib/log/messages';
import { newId, timestamp } from './charts';
import { commitTogether } from './commits';
import type { Db } from './database';
import { decode } from './texts';

const rowOf = ({ zone, tempoFrom, ...stint }: StintContent) => ({
  ...{ at: stint.at, time: Date.parse(stint.at), chart: stint.chart, exercise: stint.exercise },
  ...{ low: zone.low, high: zone.high, extent: stint.extent, tempo_from: tempoFrom },
  ...{ tempo: stint.tempo, minutes: stint.minutes, asked: stint.asked, landed: stint.landed },
  ...{ note: stint.note, earlier_rule: stint.earlierRule === true ? 1 : 0 },
});

type Packed = readonly [
  ...[id: string, at: string, chart: string, exercise: string, low: number, high: number],
  ...[extent: StoredStint['extent'], tempoFrom: number, tempo: number, minutes: number],
  ...[asked: number | null, landed: number | null, note: string, time: number],
  earlier: number,
];

function stintOf(packed: Packed): StoredStint {
  const [id, at, chart, exercise, low, high, extent, tempoFrom, tempo, minutes] = packed;
  const [, , , , , , , , , , asked, landed, note, time, earlier] = packed;
  return {
    ...{ id, at, chart, exercise, zone: { low, high }, extent },
    ...{ tempoFrom, tempo, minutes, asked, landed, note, time },
    ...(earlier === 1 ? { earlierRule: true } : {}),
  };
}

/**
 * Stints since a time in milliseconds, the newest first. They come as one text: ten thousand rows, each
 * field by itself, would take three times as long to be handed over as to be found.
 */
export async function listStints(db: Db, since = -Infinity): Promise<readonly StoredStint[]> {
  const from = Number.isFinite(since) ? since : -8.64e15;
  const { rows } = await sql<{ readonly packed: ArrayBuffer | null }>`
    select cast(json_group_array(json_array(
      id, at, chart, exercise, low, high, extent, tempo_from, tempo, minutes, asked, landed, note,
      time, earlier_rule
    )) as blob) as packed
    from (select * from stint where deleted_at is null and time >= ${from} order by time desc)
  `.execute(db);
  const packed = decode(rows[0]?.packed ?? null)?.text ?? '[]';
  return (JSON.parse(packed) as readonly Packed[]).map(stintOf);
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
    ...{ at, time, chart, exercise, zone, tempo, minutes },
    asked: asked ?? undefined,
    landed: landed ?? undefined,
  }));

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

export const changeStint = (db: Db, id: string, stint: StintContent): Promise<boolean> =>
  commitTogether(db, async (transaction) => {
    const result = await transaction
      .updateTable('stint')
      .set(rowOf(stint))
      .where('id', '=', id)
      .where('deleted_at', 'is', null)
      .executeTakeFirst();
    return result.numUpdatedRows > 0n;
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

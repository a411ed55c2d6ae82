/**
 * Rows that wait beside the database's own, in tables of this connection's that nobody else sees, until they are put
 * in their place; and how what is there stood meanwhile.
 */
import { sql } from 'kysely';
import type { Db } from '../database';
import { rest } from '../desk/rest';
import { bytesOf, decode } from '../texts';
import type { Name, Row } from './rows';

/** What is put into a table, and the ids of what goes. */
export interface Changes {
  readonly put: readonly Row[];
  readonly gone: readonly string[];
}

/** The name of the table in which rows wait until they are put in their place. */
const waitingName = (name: Name) => `waiting_${name}`;
/** Rows that go with one statement. */
const TOGETHER = 100;

export type Standing = ReadonlyMap<string, number>;

/** What a row of a table counts: its revision; of a card, how often it was answered. */
const countOf = (name: Name) =>
  sql<number>`cast(${sql.ref(name === 'card' ? 'seen' : 'revision')} as integer)`;

const standingOf = (
  rows: readonly { readonly id: ArrayBuffer | null; readonly at: number }[],
): Standing => new Map(rows.map(({ id, at }) => [decode(id)?.text ?? '', at]));

/** At which revision each row of a table stands, of what is put away too; a card by how often it was answered. */
export async function standing(db: Db, name: Name): Promise<Standing> {
  const rows = await db
    .selectFrom(name)
    .select([bytesOf('id').as('id'), countOf(name).as('at')])
    .execute();
  return standingOf(rows);
}

/** The name of the table that holds how rows stood when the work began. */
const beforeName = (name: Name) => `before_${name}`;

/** How rows stand, kept in a table of this connection's too: what is saved from here on is told apart by it. */
export async function remember(db: Db, name: Name): Promise<Standing> {
  const table = sql.table(beforeName(name));
  await sql`drop table if exists temp.${table}`.execute(db);
  await sql`create temp table ${table} (id primary key, at) without rowid`.execute(db);
  await sql`
    insert into temp.${table} select id, ${countOf(name)} from ${sql.table(name)}
  `.execute(db);
  const { rows } = await sql<{ readonly id: ArrayBuffer | null; readonly at: number }>`
    select ${bytesOf('id')} as id, at from temp.${table}
  `.execute(db);
  return standingOf(rows);
}

/** What was saved since it was remembered, and how it stands; found by the database, because others wait. */
async function savedSince(db: Db, name: Name): Promise<Standing> {
  const { rows } = await sql<{ readonly id: ArrayBuffer | null; readonly at: number }>`
    select ${bytesOf('id')} as id, ${countOf(name)} as at from ${sql.table(name)}
    where not exists (
      select 1 from temp.${sql.table(beforeName(name))} as before
      where before.id = ${sql.table(name)}.id and before.at = ${countOf(name)}
    )
  `.execute(db);
  return standingOf(rows);
}

/**
 * At which revision rows stand once they are put in their place; reckoned from how they stood, so that nobody
 * waits until all are read once more.
 */
export function standsAfter(name: Name, { put, gone }: Changes, at: Standing) {
  const stood = (rows: readonly Row[]) =>
    Object.fromEntries(
      rows.map((row) => [
        row.id,
        name === 'card' ? Number(row['seen']) : (at.get(row.id) ?? 0) + 1,
      ]),
    );
  return {
    added: stood(put.filter(({ id }) => !at.has(id))),
    changed: stood(put.filter(({ id }) => at.has(id))),
    // Nothing of a card stays that could stand anywhere.
    gone: Object.fromEntries(gone.map((id) => [id, name === 'card' ? 0 : (at.get(id) ?? 0)])),
  };
}

/** Puts rows beside the database's own, in a table of this connection's that nobody else sees. */
export async function wait(db: Db, name: Name, rows: readonly Row[]): Promise<void> {
  const table = sql.table(waitingName(name));
  await sql`drop table if exists temp.${table}`.execute(db);
  await sql`create temp table ${table} as select * from ${sql.table(name)} where 0`.execute(db);
  const shared = name === 'card' ? {} : { revision: 1, deleted_at: null };
  for (let from = 0; from < rows.length; from += TOGETHER) {
    await db
      .insertInto(waitingName(name) as Name)
      .values(rows.slice(from, from + TOGETHER).map((row) => ({ ...row, ...shared })) as never)
      .execute();
    await rest();
  }
}

/** Whether a table of this connection's is there: one that met a lock was opened anew, without them. */
async function isThere(db: Db, table: string): Promise<boolean> {
  const { rows } = await sql`
    select 1 from temp.sqlite_schema where name = ${table}
  `.execute(db);
  return rows.length > 0;
}

/** Puts rows beside the database's own once more where they are gone. */
export async function stillWait(db: Db, name: Name, rows: readonly Row[]): Promise<void> {
  if (!(await isThere(db, waitingName(name)))) await wait(db, name, rows);
}

/** What was saved since the work began, also where what was remembered is gone. */
export async function savedMeanwhile(db: Db, name: Name, before: Standing): Promise<Standing> {
  if (await isThere(db, beforeName(name))) return savedSince(db, name);
  const at = await standing(db, name);
  return new Map([...at].filter(([id, count]) => before.get(id) !== count));
}

/** Columns of a table that an archive does not have: what stands there stays. */
const OWN: Readonly<Partial<Record<Name, readonly string[]>>> = { card: ['answer'] };

/** Puts what waits into its place; a row that was there goes on by its revision. */
export async function putInPlace(db: Db, name: Name, left: readonly string[]): Promise<void> {
  const { rows: columns } = await sql<{ readonly name: string }>`
    select name from pragma_table_info(${name})
  `.execute(db);
  const kept = columns.map((one) => one.name).filter((one) => !OWN[name]?.includes(one));
  const set = kept
    .filter((one) => one !== 'id')
    .map((one) =>
      // A page that is open on what was replaced must not save over it.
      one === 'revision'
        ? sql`revision = ${sql.table(name)}.revision + 1`
        : sql`${sql.ref(one)} = excluded.${sql.ref(one)}`,
    );
  const list = sql.join(kept.map((one) => sql.ref(one)));
  const staying = left.length === 0 ? sql`1` : sql`id not in (${sql.join(left)})`;
  await sql`
    insert into ${sql.table(name)} (${list})
    select ${list} from temp.${sql.table(waitingName(name))} where ${staying}
    on conflict (id) do update set ${sql.join(set)}
  `.execute(db);
}

/** What goes is put away as deleted things are; cards have nothing to come back to. */
export async function putAway(
  db: Db,
  name: Name,
  ids: readonly string[],
  now: string,
): Promise<void> {
  for (let from = 0; from < ids.length; from += TOGETHER) {
    const some = sql.join(ids.slice(from, from + TOGETHER));
    const table = sql.table(name);
    await (
      name === 'card'
        ? sql`delete from ${table} where id in (${some})`
        : sql`update ${table} set deleted_at = ${now} where id in (${some})`
    ).execute(db);
  }
}

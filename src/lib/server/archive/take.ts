/**
 * Taking an archive in: beside what is here, or in its place; all of it or nothing. What is to change is
 * worked out before, so that others wait for the change only.
 */
import { sql } from 'kysely';
import { z } from 'zod';
import { commitTogether } from '../commits';
import type { Db } from '../database';
import { readSettings } from '$lib/settings/settings';
import { STARTER } from '../licks';
import { log } from '../log';
import { findSettings, PLAYER, revisionOf, writeRow } from '../settings';
import { isWav, putSound, removeSound, soundsIn } from '../sounds';
import { bytesOf, decode, readRows } from '../texts';
import { type Archive, type Name, NAMES, type Row, TABLES } from './rows';
import { rowsOf } from './write';
import { rest } from '../desk/rest';

export const MODES = ['merge', 'replace'] as const;
export type Mode = (typeof MODES)[number];

/** What an archive would change, or has changed, of one kind of thing. */
export interface Change {
  readonly what: string;
  readonly added: number;
  readonly changed: number;
  readonly same: number;
  readonly removed: number;
}

/** Which of two versions of a thing stays when both are kept together: the later. */
function isLater(name: Name, theirs: Row, ours: Row): boolean {
  if (name === 'card') return Number(theirs['seen']) > Number(ours['seen']);
  if (name === 'stint') return false;
  return String(theirs['updated_at']) > String(ours['updated_at']);
}

interface Work {
  readonly change: Change;
  readonly put: readonly Row[];
  readonly gone: readonly string[];
}

/** What taking an archive did, so that it can be taken back: ids, each with how its row stood afterwards. */
const takenSchema = z.object({
  at: z.string(),
  /** The backup that was made before. */
  backup: z.string(),
  /** The revision of the settings it brought; null where it brought none. */
  settings: z.nullable(z.int()),
  tables: z.record(
    z.string(),
    z.object({
      added: z.record(z.string(), z.int()),
      changed: z.record(z.string(), z.int()),
      gone: z.record(z.string(), z.int()),
    }),
  ),
});
type TakenIn = z.infer<typeof takenSchema>;

/** Under which name the settings keep it. */
const TAKEN_IN = 'import';

/** The archive that was taken in last and can be taken back; null where there is none. */
export async function takenIn(db: Db): Promise<TakenIn | null> {
  const [row] = await readRows(db, 'setting', sql`name = ${TAKEN_IN}`);
  try {
    return takenSchema.parse(JSON.parse(String(row?.['value'])));
  } catch {
    return null;
  }
}

/** What the licks a book begins with were called before they were named by what they do. */
const FORMER = /^(?:Up|Down) round the |, (?:first|second|third|fourth|fifth) zone$/u;

/**
 * Rows as they are kept beside ours: the licks a book begins with are the same in every book, under whatever
 * ids, as long as nobody has changed them.
 */
function besideOurs(name: Name, rows: readonly Row[], present: readonly Row[], mode: Mode) {
  if (name !== 'lick' || mode === 'replace') return rows;
  const said = ({ tags, chart, notes }: Row) => JSON.stringify([tags, chart, notes]);
  const starters = present.filter(({ source }) => source === STARTER);
  const ours = new Map(starters.map((row) => [said(row), row]));
  const own = new Set(present.map((row) => row.id));
  return rows.map((row) => {
    const starts = row['source'] === STARTER && !own.has(row.id);
    const known = starts ? ours.get(said(row)) : undefined;
    const title = String(row['title']);
    const named = known && (title === known['title'] || FORMER.test(title));
    return known && named ? { ...row, id: known.id } : row;
  });
}

function workFor(name: Name, archive: Archive, present: readonly Row[], mode: Mode): Work {
  const ours = new Map(present.map((row) => [row.id, row]));
  const put: Row[] = [];
  let [added, changed, same] = [0, 0, 0];
  for (const row of besideOurs(name, archive.rows[name], present, mode)) {
    const own = ours.get(row.id);
    if (!own) added += 1;
    else if (JSON.stringify(own) === JSON.stringify(row)) {
      same += 1;
      continue;
    } else if (mode === 'replace' || isLater(name, row, own)) changed += 1;
    else {
      same += 1;
      continue;
    }
    put.push(row);
  }
  const theirs = new Set(archive.rows[name].map((row) => row.id));
  const gone = mode === 'replace' ? [...ours.keys()].filter((one) => !theirs.has(one)) : [];
  const change = { what: TABLES[name].words, added, changed, same, removed: gone.length };
  return { change, put, gone };
}

/** What taking an archive would change. */
export async function previewArchive(
  db: Db,
  archive: Archive,
  mode: Mode,
): Promise<readonly Change[]> {
  const changes: Change[] = [];
  for (const name of NAMES)
    changes.push(workFor(name, archive, await rowsOf(db, name), mode).change);
  return changes;
}

export interface Taking {
  readonly mode: Mode;
  readonly now: string;
  /** The backup that was made before, by its name; what is replaced can be brought back from there. */
  readonly backup: string;
}

/** Takes an archive, all of it or nothing; what it changed. */
export async function takeArchive(
  db: Db,
  folder: string,
  archive: Archive,
  { mode, now, backup }: Taking,
): Promise<readonly Change[]> {
  // A take's sound never changes: what is there stays, and what belongs to no take is not kept.
  const present = new Set(await soundsIn(folder));
  const written: string[] = [];
  try {
    // Sounds first: a row that is there names a file that is there, whenever it ends.
    for (const { id: of, sound } of archive.rows.lick) {
      if (sound === null || present.has(of) || !archive.sounds.has(of)) continue;
      const bytes = await archive.soundOf(of);
      if (!isWav(bytes)) continue;
      written.push(of);
      await putSound(folder, of, bytes);
      await rest();
    }
    return await takeRows(db, archive, { mode, now, backup });
  } catch (error) {
    for (const of of written) await removeSound(folder, of);
    throw error;
  }
}

/** The name of the table in which rows wait until they are put in their place. */
const waitingName = (name: Name) => `waiting_${name}`;
/** Rows that go with one statement. */
const TOGETHER = 100;

type Standing = ReadonlyMap<string, number>;

/** What a row of a table counts: its revision; of a card, how often it was answered. */
const countOf = (name: Name) =>
  sql<number>`cast(${sql.ref(name === 'card' ? 'seen' : 'revision')} as integer)`;

const standingOf = (
  rows: readonly { readonly id: ArrayBuffer | null; readonly at: number }[],
): Standing => new Map(rows.map(({ id, at }) => [decode(id)?.text ?? '', at]));

/** At which revision each row of a table stands, of what is put away too; a card by how often it was answered. */
async function standing(db: Db, name: Name): Promise<Standing> {
  const rows = await db
    .selectFrom(name)
    .select([bytesOf('id').as('id'), countOf(name).as('at')])
    .execute();
  return standingOf(rows);
}

/** The name of the table that holds how rows stood when the work began. */
const beforeName = (name: Name) => `before_${name}`;

/** How rows stand, kept in a table of this connection's too: what is saved from here on is told apart by it. */
async function remember(db: Db, name: Name): Promise<Standing> {
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
function standsAfter(name: Name, { put, gone }: Omit<Work, 'change'>, at: Standing) {
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
async function wait(db: Db, name: Name, rows: readonly Row[]): Promise<void> {
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
async function stillWait(db: Db, name: Name, rows: readonly Row[]): Promise<void> {
  if (!(await isThere(db, waitingName(name)))) await wait(db, name, rows);
}

/** What was saved since the work began, also where what was remembered is gone. */
async function savedMeanwhile(db: Db, name: Name, before: Standing): Promise<Standing> {
  if (await isThere(db, beforeName(name))) return savedSince(db, name);
  const at = await standing(db, name);
  return new Map([...at].filter(([id, count]) => before.get(id) !== count));
}

/** Columns of a table that an archive does not have: what stands there stays. */
const OWN: Readonly<Partial<Record<Name, readonly string[]>>> = { card: ['answer'] };

/** Puts what waits into its place; a row that was there goes on by its revision. */
async function putInPlace(db: Db, name: Name, left: readonly string[]): Promise<void> {
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
async function putAway(db: Db, name: Name, ids: readonly string[], now: string): Promise<void> {
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

async function takeRows(
  db: Db,
  archive: Archive,
  { mode, now, backup }: Taking,
): Promise<readonly Change[]> {
  const works: (Work & { name: Name; before: Standing; stands: TakenIn['tables'][string] })[] = [];
  for (const name of NAMES) {
    const before = await remember(db, name);
    const work = workFor(name, archive, await rowsOf(db, name), mode);
    await wait(db, name, work.put);
    works.push({ ...work, name, before, stands: standsAfter(name, work, before) });
  }
  await commitTogether(db, async (transaction) => {
    const tables: TakenIn['tables'] = {};
    for (const { name, put, gone, before, stands } of works) {
      await stillWait(transaction, name, put);
      // Saved while this was worked out: no backup has it, so it stays, whatever comes in.
      const saved = await savedMeanwhile(transaction, name, before);
      const left = [...put.map(({ id }) => id), ...gone].filter((id) => saved.has(id));
      const staying = new Set(left);
      const going = gone.filter((id) => !staying.has(id));
      await putInPlace(transaction, name, left);
      await putAway(transaction, name, going, now);
      const rows = () => put.filter(({ id }) => !staying.has(id));
      tables[name] =
        left.length === 0
          ? stands
          : standsAfter(name, { put: rows(), gone: going }, new Map([...before, ...saved]));
    }
    const settings = await takeSettings(transaction, archive.settings, mode);
    const value = JSON.stringify({ at: now, backup, settings, tables } satisfies TakenIn);
    await replaceRow(transaction, TAKEN_IN, value);
  });
  return works.map(({ change }) => change);
}

/**
 * Takes back the archive that was taken in last: what it put in the place of other things is as it was before,
 * from the backup; what it brought is put away. What was changed since stays.
 */
export async function takeBack(
  db: Db,
  { at: taken, settings, tables }: TakenIn,
  backup: Db,
  now: string,
): Promise<readonly Change[]> {
  const changes: Change[] = [];
  const works: { name: Name; put: readonly Row[]; gone: readonly string[] }[] = [];
  for (const name of NAMES) {
    const { added = {}, changed = {}, gone = {} } = tables[name] ?? {};
    const at = await standing(db, name);
    const untouched = (ids: Readonly<Record<string, number>>) =>
      Object.keys(ids).filter((id) => (at.get(id) ?? 0) === ids[id]);
    const wanted = new Set([...untouched(changed), ...untouched(gone)]);
    const put = (await rowsOf(backup, name)).filter(({ id }) => wanted.has(id));
    const back = new Set(put.map(({ id }) => id));
    // What was put away before the archive brought it back is put away again.
    const away = [...untouched(added), ...untouched(changed).filter((id) => !back.has(id))];
    await wait(db, name, put);
    works.push({ name, put, gone: away });
    const all = [added, changed, gone].reduce((sum, ids) => sum + Object.keys(ids).length, 0);
    changes.push({
      what: TABLES[name].words,
      added: 0,
      changed: put.length,
      removed: away.length,
      same: all - put.length - away.length,
    });
  }
  await commitTogether(db, async (transaction) => {
    for (const { name, put, gone } of works) {
      await stillWait(transaction, name, put);
      await putInPlace(transaction, name, []);
      await putAway(transaction, name, gone, now);
    }
    const [player] = await readRows(backup, 'setting', sql`name = ${PLAYER}`);
    if (player && settings !== null && (await revisionOf(transaction, PLAYER)) === settings)
      await replaceRow(transaction, PLAYER, String(player['value']));
    await transaction.deleteFrom('setting').where('name', '=', TAKEN_IN).execute();
  });
  log('info', 'archive taken back', { taken });
  return changes;
}

/** Puts a row of settings in the place of what is there; its new revision. */
const replaceRow = async (db: Db, name: string, value: string): Promise<number> =>
  writeRow(db, name, value, await revisionOf(db, name));

async function takeSettings(db: Db, value: string | null, mode: Mode): Promise<number | null> {
  if (value === null) return null;
  const theirs = mode === 'replace' || (await revisionOf(db, PLAYER)) === 0;
  if (theirs) return replaceRow(db, PLAYER, value);
  // Patterns are made as charts are: those that are new come along, those that are here stay.
  const { settings: mine } = await findSettings(db);
  const patterns = { ...readSettings(value).patterns, ...mine.patterns };
  if (Object.keys(patterns).length === Object.keys(mine.patterns).length) return null;
  return replaceRow(db, PLAYER, JSON.stringify({ ...mine, patterns }));
}

/** Everything that would change, as a sentence. */
export function changeSays(changes: readonly Change[]): string {
  const parts = changes.flatMap(({ what, added, changed, removed }) => {
    const words = [
      added > 0 ? `${added} added` : '',
      changed > 0 ? `${changed} changed` : '',
      removed > 0 ? `${removed} put away` : '',
    ].filter((one) => one !== '');
    return words.length === 0 ? [] : [`${what}: ${words.join(', ')}`];
  });
  return parts.length === 0 ? 'Nothing is new in this archive.' : `${parts.join('; ')}.`;
}

/** Licks in the database, with revisions and soft deletion as charts have them. */
import { dequal } from 'dequal/lite';
import { sql } from 'kysely';
import type { Lick } from '$core/licks/lick';
import { STARTER_LICKS } from '$core/licks/starter';
import { keptNotes, keptTags, type LickTitle, type StoredLick } from '$lib/licks/messages';
import { newId, timestamp } from './charts';
import { commitTogether, outcomeOf, type Saved } from './commits';
import type { Db } from './database';
import { removeSound, soundsIn } from './sounds';
import { bytesOf, decode } from './texts';

/** What a list shows of each. */
const SHOWN = ['id', 'title', 'tags', 'source', 'chart'] as const;
const TEXTS = [
  ...(['id', 'title', 'tags', 'source', 'chart', 'notes', 'take_of', 'created_at'] as const),
] as const;
type Bytes = Readonly<Record<(typeof TEXTS)[number], ArrayBuffer | null>>;
type Row = Bytes & { readonly revision: number; readonly sound: number | null };

/** Licks that are not put away, their texts as bytes and numbers as numbers, whatever damage has made of them. */
const rowsOf = (db: Db) =>
  db
    .selectFrom('lick')
    .select(TEXTS.map((column) => bytesOf(column).as(column)))
    .select([
      sql<number>`coalesce(cast(revision as integer), 1)`.as('revision'),
      sql<number | null>`cast(sound as integer)`.as('sound'),
    ])
    .where('deleted_at', 'is', null)
    .$castTo<Row>();

type LickSaved = Saved<StoredLick>;

function parsed(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    return null;
  }
}

/** The notes of a row's JSON; none where they cannot be read. */
export const notesIn = (json: string): StoredLick['notes'] =>
  keptNotes.safeParse(parsed(json)).data ?? [];

/** A row as it is shown; what cannot be read of it is left out rather than the whole. */
function lickOf(row: Row): StoredLick {
  const text = (name: (typeof TEXTS)[number]) => decode(row[name])?.text ?? '';
  const words = keptTags.safeParse(parsed(text('tags')));
  return {
    id: text('id'),
    title: text('title'),
    source: text('source'),
    chart: text('chart'),
    revision: row.revision,
    sound: row.sound,
    made: text('created_at'),
    tags: words.data ?? [],
    notes: notesIn(text('notes')),
    takeOf: row.take_of === null ? null : text('take_of'),
  };
}

const contentOf = ({ title, tags, source, chart, notes }: Lick) => ({
  title,
  source,
  chart,
  tags: JSON.stringify(tags),
  notes: JSON.stringify(notes),
});

/** The book's own, not the takes: the player's first, what was changed last before; then the starter book. */
const ofBook = (db: Db) =>
  rowsOf(db)
    .where('take_of', 'is', null)
    .orderBy((one) => one.case().when('source', '=', STARTER).then(1).else(0).end())
    .orderBy(
      (one) => one.case().when('source', '=', STARTER).then('').else(one.ref('updated_at')).end(),
      'desc',
    )
    .orderBy(sql`rowid`);

/** All licks of the book not deleted. */
export const listLicks = async (db: Db): Promise<readonly StoredLick[]> =>
  (await ofBook(db).execute()).map(lickOf);

/** The same, as far as a list of them shows. */
export async function listTitles(db: Db): Promise<readonly LickTitle[]> {
  const rows = await ofBook(db)
    .clearSelect()
    .select(SHOWN.map((column) => bytesOf(column).as(column)))
    .$castTo<Pick<Bytes, (typeof SHOWN)[number]>>()
    .execute();
  return rows.map((row) => {
    const text = (name: (typeof SHOWN)[number]) => decode(row[name])?.text ?? '';
    const tags = keptTags.safeParse(parsed(text('tags'))).data ?? [];
    return {
      id: text('id'),
      title: text('title'),
      tags,
      source: text('source'),
      chart: text('chart'),
    };
  });
}

export async function findLick(db: Db, id: string): Promise<StoredLick | null> {
  const row = await rowsOf(db).where('id', '=', id).executeTakeFirst();
  return row ? lickOf(row) : null;
}

/** Makes a lick; whether that was done, which it is not where its id is taken. */
async function insert(db: Db, id: string, lick: Lick, takeOf: string | null): Promise<boolean> {
  const now = timestamp();
  const made = await db
    .insertInto('lick')
    .values({
      id,
      ...contentOf(lick),
      take_of: takeOf,
      sound: null,
      created_at: now,
      updated_at: now,
      deleted_at: null,
    })
    .onConflict((conflict) => conflict.doNothing())
    .executeTakeFirst();
  return (made.numInsertedOrUpdatedRows ?? 0n) > 0n;
}

/** Makes a lick of the book, or a take of a chart. */
export async function createLick(
  db: Db,
  lick: Lick,
  takeOf: string | null = null,
): Promise<string> {
  const id = newId();
  await commitTogether(db, (transaction) => insert(transaction, id, lick, takeOf));
  return id;
}

/** Makes a take under an id that its page has given it; whether it is there, which one deleted since is not. */
export const makeTake = (db: Db, id: string, lick: Lick, takeOf: string): Promise<boolean> =>
  commitTogether(db, async (transaction) => {
    const there = await transaction
      .selectFrom('lick')
      .select([bytesOf('take_of').as('takeOf'), bytesOf('deleted_at').as('deleted')])
      .where('id', '=', id)
      .executeTakeFirst();
    if (there) return there.takeOf !== null && there.deleted === null;
    await insert(transaction, id, lick, takeOf);
    return true;
  });

/** The takes of a chart, the latest first. */
export async function listTakes(db: Db, chart: string): Promise<readonly StoredLick[]> {
  const rows = await rowsOf(db)
    .where('take_of', '=', chart)
    .orderBy('created_at', 'desc')
    .execute();
  return rows.map(lickOf);
}

/** Says how large the sound of a take is; null where it has none any more. Whether there is such a take. */
export const markSound = (db: Db, id: string, bytes: number | null): Promise<boolean> =>
  commitTogether(db, async (transaction) => {
    const marked = await transaction
      .updateTable('lick')
      .set({ sound: bytes })
      .where('id', '=', id)
      .where('take_of', 'is not', null)
      .where('deleted_at', 'is', null)
      .executeTakeFirst();
    return marked.numUpdatedRows > 0n;
  });

/** Bytes of the sounds that are kept, without one take's: what was deleted does not count. */
export async function soundsBeside(db: Db, id: string): Promise<number> {
  const row = await db
    .selectFrom('lick')
    .select(sql<number | null>`sum(cast(sound as integer))`.as('bytes'))
    .where('take_of', 'is not', null)
    .where('deleted_at', 'is', null)
    .where('id', '!=', id)
    .executeTakeFirst();
  return row?.bytes ?? 0;
}

async function update(db: Db, id: string, revision: number, lick: Lick): Promise<boolean> {
  const saved = await db
    .updateTable('lick')
    .set({ ...contentOf(lick), revision: revision + 1, updated_at: timestamp() })
    .where('id', '=', id)
    .where('revision', '=', revision)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  return saved.numUpdatedRows > 0n;
}

/**
 * Saves an edit made on `revision`, where 0 makes the lick; refuses, with what stands now, when that is
 * stale.
 */
export const saveLick = (db: Db, id: string, revision: number, lick: Lick): Promise<LickSaved> =>
  commitTogether(db, async (transaction): Promise<LickSaved> => {
    const saved = await (revision === 0
      ? insert(transaction, id, lick, null)
      : update(transaction, id, revision, lick));
    return outcomeOf(saved, {
      revision,
      find: () => findLick(transaction, id),
      same: (current) => dequal(contentOf(current), contentOf(lick)),
    });
  });

const mark = (db: Db, id: string, deleted: string | null): Promise<boolean> =>
  commitTogether(db, async (transaction) => {
    const result = await transaction
      .updateTable('lick')
      .set({ deleted_at: deleted })
      .where('id', '=', id)
      .where('deleted_at', deleted === null ? 'is not' : 'is', null)
      .executeTakeFirst();
    return result.numUpdatedRows > 0n;
  });

/** Hides a lick; {@link restoreLick} brings it back whole. */
export const deleteLick = (db: Db, id: string): Promise<boolean> => mark(db, id, timestamp());
export const restoreLick = (db: Db, id: string): Promise<boolean> => mark(db, id, null);

/** The source of the licks a book begins with. */
export const STARTER = 'Corvel';

/** Puts the starter book into a lick book that has never held anything. */
export async function beginLickBook(db: Db): Promise<void> {
  const any = await db
    .selectFrom('lick')
    .select(sql`1`.as('one'))
    .limit(1)
    .executeTakeFirst();
  if (any) return;
  await commitTogether(db, async (transaction) => {
    for (const lick of STARTER_LICKS) await insert(transaction, newId(), lick, null);
  });
}

/**
 * Lets go of sounds whose take was deleted here, now that nobody can take that back. A sound that this
 * database does not know may be another's: a database that was set aside, a backup, an archive that was
 * broken off.
 */
export async function sweepSounds(
  db: Db,
  folder: string,
  elsewhere: () => ReadonlySet<string>,
): Promise<void> {
  const ids = await soundsIn(folder);
  if (ids.length === 0) return;
  const rows = await db
    .selectFrom('lick')
    .select(bytesOf('id').as('id'))
    .where('deleted_at', 'is not', null)
    .execute();
  const deleted = new Set(rows.map(({ id }) => decode(id)?.text));
  const leaving = ids.filter((id) => deleted.has(id));
  if (leaving.length === 0) return;
  const named = elsewhere();
  for (const id of leaving) if (!named.has(id)) await removeSound(folder, id);
}

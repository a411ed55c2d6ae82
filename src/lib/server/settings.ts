/** The player's settings in the database: one document with a revision. */
import { readSettings, type Settings, type StoredSettings } from '$lib/settings/settings';
import { dequal } from 'dequal/lite';
import { sql } from 'kysely';
import { commitTogether, type Saved } from './commits';
import type { Db } from './database';
import { bytesOf, decode } from './texts';

/** The row of the player's own settings. */
export const PLAYER = 'player';

export async function findSettings(db: Db): Promise<StoredSettings> {
  const row = await db
    .selectFrom('setting')
    .select([
      bytesOf('value').as('value'),
      sql<number>`coalesce(cast(revision as integer), 0)`.as('revision'),
    ])
    .where('name', '=', PLAYER)
    .executeTakeFirst();
  const value = decode(row?.value ?? null)?.text ?? '';
  return { settings: readSettings(value), revision: row?.revision ?? 0 };
}

/** The revision of a row of settings; 0 where there is none. */
export async function revisionOf(db: Db, name: string): Promise<number> {
  const row = await db
    .selectFrom('setting')
    .select(sql<number>`coalesce(cast(revision as integer), 0)`.as('revision'))
    .where('name', '=', name)
    .executeTakeFirst();
  return row?.revision ?? 0;
}

/** Writes a row of settings on a revision; the next one. */
export async function writeRow(
  db: Db,
  name: string,
  value: string,
  revision: number,
): Promise<number> {
  const row = { name, value, revision: revision + 1 };
  await db
    .insertInto('setting')
    .values(row)
    .onConflict((conflict) => conflict.column('name').doUpdateSet(row))
    .execute();
  return row.revision;
}

/** Saves settings made on `revision`; refuses, with what stands now, when that is stale. */
export const saveSettings = (
  db: Db,
  settings: Settings,
  revision: number,
): Promise<Saved<StoredSettings>> =>
  commitTogether(db, async (transaction): Promise<Saved<StoredSettings>> => {
    const current = await findSettings(transaction);
    // What stands there as it is sent was sent twice.
    if (current.revision > revision && dequal(current.settings, settings))
      return { kind: 'saved', revision: current.revision };
    if (current.revision !== revision) return { kind: 'conflict', current };
    const value = JSON.stringify(settings);
    return { kind: 'saved', revision: await writeRow(transaction, PLAYER, value, revision) };
  });

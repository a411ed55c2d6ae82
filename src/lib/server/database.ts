/** Opening the SQLite file: pragmas, backups, migrations. */
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Kysely, Migrator, SqliteDialect } from 'kysely';
import Database from 'libsql';
import { MIGRATIONS } from './migrations';
import type { Tables } from './schema';

export type Db = Kysely<Tables>;

export const DATABASE_FILE = 'corvel.sqlite';
export const BACKUP_FOLDER = 'backups';
const BACKUPS_KEPT = 7;

/** The file cannot be used as it is; the player is shown why and how to go back. */
export class DamagedDatabaseError extends Error {
  override readonly name = 'DamagedDatabaseError';
}

function connect(file: string): Database.Database {
  const connection = new Database(file);
  try {
    connection.pragma('journal_mode = WAL');
    connection.pragma('foreign_keys = ON');
    // A save that was acknowledged must survive a power cut.
    connection.pragma('synchronous = FULL');
    connection.pragma('busy_timeout = 5000');
    const check = connection.prepare('PRAGMA quick_check').all() as { quick_check: string }[];
    if (check[0]?.quick_check !== 'ok') {
      throw new DamagedDatabaseError(check[0]?.quick_check ?? 'quick_check failed');
    }
    return connection;
  } catch (error) {
    connection.close();
    throw error instanceof DamagedDatabaseError
      ? error
      : new DamagedDatabaseError(error instanceof Error ? error.message : String(error));
  }
}

const backupFolder = (folder: string) => join(folder, BACKUP_FOLDER);

/** Backups, newest first, by file name. */
export function listBackups(folder: string): readonly string[] {
  if (!existsSync(backupFolder(folder))) return [];
  return readdirSync(backupFolder(folder))
    .filter((name) => name.endsWith('.sqlite'))
    .sort()
    .reverse();
}

/** Copies the database as it is now into the backups, and keeps the last seven. */
function backUp(connection: Database.Database, folder: string, stamp: string): void {
  mkdirSync(backupFolder(folder), { recursive: true });
  const target = join(backupFolder(folder), `${stamp}.sqlite`);
  if (existsSync(target)) return;
  connection.prepare('VACUUM INTO ?').run(target);
  for (const name of listBackups(folder).slice(BACKUPS_KEPT)) {
    rmSync(join(backupFolder(folder), name));
  }
}

async function pendingMigrations(migrator: Migrator): Promise<readonly string[]> {
  const all = await migrator.getMigrations();
  return all.filter((migration) => !migration.executedAt).map((migration) => migration.name);
}

export interface OpenDatabase {
  readonly db: Db;
  /** Copies the day's backup if there is none yet. */
  readonly backUpDaily: (now: Date) => void;
  readonly close: () => void;
}

const compact = (now: Date) => now.toISOString().replace(/[-:]/gu, '').slice(0, 15);

/** Opens (or creates) the database of a data folder and brings it to the newest version. */
export async function openDatabase(
  folder: string,
  now: Date = new Date(),
  migrations = MIGRATIONS,
): Promise<OpenDatabase> {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, DATABASE_FILE);
  const existed = existsSync(file);
  const connection = connect(file);
  const db: Db = new Kysely<Tables>({ dialect: new SqliteDialect({ database: connection }) });
  const migrator = new Migrator({
    db,
    provider: { getMigrations: async () => ({ ...migrations }) },
  });
  const pending = await pendingMigrations(migrator);
  if (existed && pending.length > 0) {
    backUp(connection, folder, `${compact(now)}-before-${pending[0] ?? 'migration'}`);
  }
  const { error } = await migrator.migrateToLatest();
  if (error) {
    connection.close();
    throw new DamagedDatabaseError(error instanceof Error ? error.message : 'A migration failed.');
  }
  return {
    db,
    backUpDaily: (today) => {
      const day = compact(today).slice(0, 8);
      const done = listBackups(folder).some((name) => name.startsWith(`${day}-daily`));
      if (!done) backUp(connection, folder, `${day}-daily`);
    },
    close: () => {
      // Leaves one whole file behind, without a log beside it.
      connection.pragma('wal_checkpoint(TRUNCATE)');
      connection.close();
    },
  };
}

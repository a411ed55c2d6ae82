/** Opening the SQLite file: whether it is sound and known, backups, migrations. */
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Kysely, Migrator, SqliteAdapter, SqliteDialect } from 'kysely';
import { backUp, type BackupKind, compact, hasBackup } from './backups';
import { log } from './log';
import { MIGRATIONS } from './migrations';
import { problemOf, StoreProblem } from './problems';
import type { Tables } from './schema';
import { type Connection, connect } from './sqlite';
import { decode } from './texts';

export type Db = Kysely<Tables>;

export const DATABASE_FILE = 'corvel.sqlite';

/** Names of what of the database stands in a folder: the file and its logs. */
export const databaseFiles = (folder: string): readonly string[] =>
  ['', '-wal', '-shm']
    .map((suffix) => DATABASE_FILE + suffix)
    .filter((name) => existsSync(join(folder, name)));

/** Copies the database with its logs, which hold what was saved last. */
export function copyDatabase(from: string, to: string): void {
  for (const name of databaseFiles(from)) copyFileSync(join(from, name), join(to, name));
}

/** SQLite changes tables within a transaction: a migration and its record are one. */
class TransactionalAdapter extends SqliteAdapter {
  override get supportsTransactionalDdl(): boolean {
    return true;
  }
}

class TransactionalDialect extends SqliteDialect {
  override createAdapter(): SqliteAdapter {
    return new TransactionalAdapter();
  }
}

const dialectOver = (connection: Connection) => new TransactionalDialect({ database: connection });

/** The text of each row of a column; fails where one is not UTF-8, which the driver must not read. */
function textsOf(connection: Connection, column: string, table: string): readonly string[] {
  const rows = connection.all(`select cast(${column} as blob) as bytes from ${table}`);
  return rows.flatMap(({ bytes }) => {
    const decoded = decode(bytes as ArrayBuffer | null);
    if (decoded?.damaged) throw new StoreProblem('damaged', `${table}.${column} is no text.`);
    return decoded ? [decoded.text] : [];
  });
}

const MIGRATION_TABLE = 'kysely_migration';

/** Throws where the file is not sound, or was written by a newer Corvel; answers what it has run. */
function inspect(connection: Connection, known: readonly string[]): readonly string[] {
  const [check] = connection.all('pragma quick_check');
  const found = String(check?.['quick_check']);
  if (found !== 'ok') throw new StoreProblem('damaged', found);
  const names = textsOf(connection, 'name', 'sqlite_schema');
  textsOf(connection, 'sql', 'sqlite_schema');
  textsOf(connection, 'tbl_name', 'sqlite_schema');
  if (!names.includes(MIGRATION_TABLE)) return [];
  textsOf(connection, 'timestamp', MIGRATION_TABLE);
  const run = textsOf(connection, 'name', MIGRATION_TABLE);
  const newer = run.filter((name) => !known.includes(name));
  if (newer.length > 0) {
    // A newer Corvel's names go on counting; anything else is damage.
    const kind = newer.every((name) => /^\d{3}-[a-z-]+$/u.test(name)) ? 'newer' : 'damaged';
    throw new StoreProblem(kind, `It has run ${newer.join(', ')}.`);
  }
  return run;
}

/** Whether the tables are as this Corvel reads them. */
function checkTables(connection: Connection): void {
  try {
    connection.all(
      `select id, title, text, plan, view, key, tempo, bars, revision, created_at, updated_at,
         opened_at, deleted_at from chart limit 0`,
    );
    connection.all('select name, value, revision from setting limit 0');
  } catch (error) {
    throw problemOf(error) ?? new StoreProblem('damaged', String(error));
  }
}

async function migrate(db: Db, migrations: typeof MIGRATIONS): Promise<void> {
  const migrator = new Migrator({
    db,
    provider: { getMigrations: () => Promise.resolve({ ...migrations }) },
  });
  const { error } = await migrator.migrateToLatest();
  if (error) throw problemOf(error) ?? new StoreProblem('damaged', String(error));
}

export interface OpenDatabase {
  readonly db: Db;
  /** Where its file stands. */
  readonly folder: string;
  /** Why nothing can be written; null where it can. */
  readonly limited: 'read-only' | 'full' | null;
  /** Which backup is due: the day's, or one after some hours of change; null where none is. */
  readonly backupDue: (now: Date) => BackupKind | null;
  /** Says that one was made. */
  readonly backedUp: (now: Date) => void;
  readonly close: () => void;
}

/** Hours of change after which a backup is made within the day. */
const HOURS = 3;

function keepBackups(connection: Connection, folder: string) {
  const charts = () =>
    Number(connection.all('select count(*) as charts from chart')[0]?.['charts'] ?? 0);
  /** Changes with whatever is written, in whatever table, through this connection or beside it. */
  const mark = () =>
    `${connection.writes()} ${Number(connection.all('pragma data_version')[0]?.['data_version'])}`;
  let last = { mark: mark(), at: Date.now() };
  return {
    due(now: Date): BackupKind | null {
      // An empty book is nothing to go back to.
      if (charts() === 0) return null;
      const day = compact(now).slice(0, 8);
      if (!hasBackup(folder, day, 'daily')) return 'daily';
      const changed = mark() !== last.mark;
      return changed && now.getTime() - last.at >= HOURS * 3_600_000 ? 'hours' : null;
    },
    made(now: Date) {
      last = { mark: mark(), at: now.getTime() };
    },
    atStop(now: Date) {
      if (charts() > 0 && mark() !== last.mark) backUp(connection, folder, 'stop', now);
    },
  };
}

/** Opens (or creates) the database of a data folder and brings it to the newest version. */
export async function openDatabase(
  folder: string,
  now: Date = new Date(),
  migrations = MIGRATIONS,
): Promise<OpenDatabase> {
  let connection: Connection | null = null;
  try {
    mkdirSync(folder, { recursive: true });
    const file = join(folder, DATABASE_FILE);
    const existed = existsSync(file);
    connection = connect(file);
    const known = Object.keys(migrations);
    const run = inspect(connection, known);
    const db: Db = new Kysely<Tables>({ dialect: dialectOver(connection) });
    // Looking for migrations writes; a file that has them all is only read.
    if (run.length < known.length) {
      if (existed && run.length > 0) backUp(connection, folder, 'before', now);
      await migrate(db, migrations);
    }
    if (Object.keys(MIGRATIONS).every((name) => known.includes(name))) checkTables(connection);
    const backups = keepBackups(connection, folder);
    const opened = connection;
    return {
      db,
      folder,
      limited: null,
      backupDue: backups.due,
      backedUp: backups.made,
      close: () => {
        try {
          backups.atStop(new Date());
          // Leaves one whole file behind, without a log beside it.
          opened.exec('pragma wal_checkpoint(truncate)');
        } catch (error) {
          log('warn', 'closing', { reason: String(error) });
        }
        opened.close();
      },
    };
  } catch (error) {
    connection?.close();
    throw problemOf(error) ?? error;
  }
}

/**
 * Opens a copy of the database for reading where its own folder takes no writing: SQLite needs to
 * write beside a file even to read it.
 */
export function openToRead(folder: string, limited: 'read-only' | 'full'): OpenDatabase {
  const aside = mkdtempSync(join(tmpdir(), 'corvel-reading-'));
  try {
    copyDatabase(folder, aside);
    const connection = connect(join(aside, DATABASE_FILE), { refuseWrites: limited });
    inspect(connection, Object.keys(MIGRATIONS));
    checkTables(connection);
    return {
      db: new Kysely<Tables>({ dialect: dialectOver(connection) }),
      folder: aside,
      limited,
      backupDue: () => null,
      backedUp: () => undefined,
      close: () => {
        connection.close();
        rmSync(aside, { recursive: true, force: true });
      },
    };
  } catch (error) {
    rmSync(aside, { recursive: true, force: true });
    throw problemOf(error) ?? error;
  }
}

/** Another connection to a database that is open and sound: for work beside that of the server. */
export function openBeside(folder: string): {
  readonly db: Db;
  readonly connection: Connection;
  readonly close: () => void;
} {
  const connection = connect(join(folder, DATABASE_FILE));
  const db: Db = new Kysely<Tables>({ dialect: dialectOver(connection) });
  return { db, connection, close: connection.close };
}

/** A backup, to read in; as it is now brought to the newest version in a copy of its own. */
export async function openCopy(
  file: string,
): Promise<{ readonly db: Db; readonly close: () => void }> {
  const aside = mkdtempSync(join(tmpdir(), 'corvel-copy-'));
  const remove = () => rmSync(aside, { recursive: true, force: true });
  try {
    copyFileSync(file, join(aside, DATABASE_FILE));
    const { db, close } = await openDatabase(aside);
    return {
      db,
      close: () => {
        close();
        remove();
      },
    };
  } catch (error) {
    remove();
    throw error;
  }
}

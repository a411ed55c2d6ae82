/**
 * A connection to SQLite that is opened anew after any error. The driver leaves a statement unfinished
 * when it fails, and a transaction over an unfinished statement answers as if it had been committed.
 */
import type { SqliteDatabase, SqliteStatement } from 'kysely';
import Database from 'libsql';
import { problemOf, StoreProblem } from './problems';

/** How long SQLite itself waits for a lock, in milliseconds: it holds everyone up meanwhile. */
const LOCK_WAIT = 20;

export type Row = Readonly<Record<string, unknown>>;

export interface Connection extends SqliteDatabase {
  readonly exec: (sql: string) => void;
  readonly all: (sql: string, parameters?: readonly unknown[]) => readonly Row[];
  /** How many statements have written through it. */
  readonly writes: () => number;
}

interface ConnectionOptions {
  /** Refuses every write with this problem. */
  readonly refuseWrites?: 'read-only' | 'full' | undefined;
}

function open(file: string): Database.Database {
  const database = new Database(file);
  try {
    database.exec(`pragma busy_timeout = ${LOCK_WAIT}`);
    database.exec('pragma journal_mode = wal');
    database.exec('pragma foreign_keys = on');
    // A save that was acknowledged must survive a power cut.
    database.exec('pragma synchronous = full');
    return database;
  } catch (error) {
    database.close();
    throw error;
  }
}

/** Transactions take the write lock at their start, where being busy is safe. */
const CONTROL: Readonly<Record<string, string>> = {
  begin: 'begin immediate',
  commit: 'commit',
  rollback: 'rollback',
};

export function connect(file: string, { refuseWrites }: ConnectionOptions = {}): Connection {
  let database: Database.Database | null = open(file);
  /** A transaction failed and is not rolled back yet: nothing more may be said in it. */
  let aborted = false;
  let inTransaction = false;
  let writes = 0;

  function drop() {
    const given = database;
    database = null;
    // A closed connection lives on while a statement of it does, and would go on holding the lock.
    for (const end of [() => given?.exec('rollback'), () => given?.close()]) {
      try {
        end();
      } catch {
        // There was no transaction, or it is given up in any case.
      }
    }
  }

  function attempt<T>(work: (database: Database.Database) => T): T {
    try {
      database ??= open(file);
      return work(database);
    } catch (error) {
      drop();
      aborted = inTransaction;
      throw problemOf(error) ?? error;
    }
  }

  function control(word: string, sql: string) {
    if (word === 'rollback') {
      inTransaction = false;
      // The connection went with the transaction.
      if (aborted) {
        aborted = false;
        return;
      }
    }
    if (aborted) throw new StoreProblem('busy', 'The transaction has already failed.');
    attempt((open) => open.exec(sql));
    inTransaction = word === 'begin';
  }

  function statement(sql: string): SqliteStatement {
    const command = CONTROL[sql];
    if (command !== undefined) {
      const run = () => {
        control(sql, command);
        return { changes: 0, lastInsertRowid: 0 };
      };
      return { reader: false, run, all: () => [], iterate: () => [].values() };
    }
    if (aborted) throw new StoreProblem('busy', 'The transaction has already failed.');
    const prepared = attempt((open) => open.prepare(sql));
    const refuse = !prepared.reader && refuseWrites;
    return {
      reader: prepared.reader,
      all: (parameters) => attempt(() => prepared.all(...parameters)),
      run: (parameters) => {
        if (refuse) throw new StoreProblem(refuse, 'Opened for reading only.');
        writes += 1;
        return attempt(() => prepared.run(...parameters));
      },
      iterate: (parameters) =>
        attempt(
          () => prepared.all(...parameters) as unknown[],
        ).values() as IterableIterator<unknown>,
    };
  }

  return {
    prepare: statement,
    exec: (sql) => attempt((open) => open.exec(sql)),
    all: (sql, parameters = []) =>
      attempt((open) => open.prepare(sql).all(...parameters) as readonly Row[]),
    writes: () => writes,
    close: drop,
  };
}

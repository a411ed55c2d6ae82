/** What can be read of a damaged file, row by row of every table. */
import { closeSync, mkdtempSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { commitTogether } from './commits';
import { copyDatabase, DATABASE_FILE, type Db, openDatabase } from './database';
import { log } from './log';
import type { Tables } from './schema';
import { decode, readAs } from './texts';

type Cell = string | number | null;
type SalvagedRow = Readonly<Record<string, Cell>>;
/** Rows by the name of their table. */
type Salvaged = ReadonlyMap<string, readonly SalvagedRow[]>;

interface Column {
  readonly name: string;
  readonly text: boolean;
  readonly read: string;
  /** Whether a row is none without it. */
  readonly required: boolean;
}
/** The tables of this version with their columns. */
type Shape = ReadonlyMap<string, readonly Column[]>;

/** Bytes at their place in a file. */
type Piece = readonly [at: number, bytes: Uint8Array];

/**
 * The header's fixed part: the magic words, pages of 4096 bytes in write-ahead mode, the payload
 * fractions; see "The Database Header" of the SQLite file format.
 */
const HEADER: readonly Piece[] = [
  [0, new TextEncoder().encode('SQLite format 3\0')],
  [16, Uint8Array.of(0x10, 0x00, 2, 2, 0, 64, 32, 32)],
  [44, Uint8Array.of(0, 0, 0, 4)],
  [56, Uint8Array.of(0, 0, 0, 1)],
];

function overwrite(file: string, pieces: readonly Piece[]): void {
  const handle = openSync(file, 'r+');
  try {
    for (const [at, bytes] of pieces) writeSync(handle, bytes, 0, bytes.length, at);
  } finally {
    closeSync(handle);
  }
}

/** The tables of a sound file, without those of the migrations. */
function shapeOf(file: string): Shape {
  const database = new Database(file, { readonly: true });
  try {
    const tables = database
      .prepare("select name from sqlite_schema where type = 'table' and name not like 'kysely%'")
      .all() as { name: string }[];
    return new Map(
      tables.map(({ name }) => {
        const columns = database
          .prepare('select name, type, "notnull", dflt_value, pk from pragma_table_info(?)')
          .all(name) as {
          name: string;
          type: string;
          notnull: number;
          dflt_value: string | null;
          pk: number;
        }[];
        return [
          name,
          columns.map((one) => ({
            name: one.name,
            text: one.type.toLowerCase() === 'text',
            read: readAs(one.name, one.type),
            required: one.pk > 0 || (one.notnull !== 0 && one.dflt_value === null),
          })),
        ] as const;
      }),
    );
  } finally {
    database.close();
  }
}

/** Rows are asked for one by one up to here where the file no longer knows how many it has. */
const MOST_ROWS = 20_000;
/** Where the file knows, it is believed up to here. */
const BELIEVED = 2_000_000;
/** Where not one of the first rows can be read, the file's own description is what is broken. */
const FIRST_ROWS = 50;

function lastRow(database: Database.Database, table: string): number {
  try {
    const row = database.prepare(`select max(rowid) as last from ${table}`).get() as {
      last: number | null;
    };
    return Math.min(BELIEVED, row.last ?? 0);
  } catch {
    return MOST_ROWS;
  }
}

/** The columns a table of the file has: an earlier version has fewer. */
const columnsThere = (
  database: Database.Database,
  table: string,
  columns: readonly Column[],
): readonly Column[] =>
  columns.filter(({ name }) => {
    try {
      database.prepare(`select ${name} from ${table} limit 0`);
      return true;
    } catch (error) {
      return !/no such column/u.test(String(error));
    }
  });

/** A cell as it may be written again; undefined leaves the column to its default. */
function cellOf({ text }: Column, value: unknown): Cell | undefined {
  if (value === null || value === undefined) return null;
  if (text) return decode(value as ArrayBuffer)?.text ?? null;
  return typeof value === 'number' && Number.isFinite(value) ? value : undefined;
}

function rowsOf(
  database: Database.Database,
  table: string,
  wanted: readonly Column[],
): readonly SalvagedRow[] {
  const columns = columnsThere(database, table, wanted);
  const list = columns.map(({ read }) => read).join(', ');
  const found: SalvagedRow[] = [];
  const last = lastRow(database, table);
  for (let rowid = 1; rowid <= last; rowid++) {
    try {
      const row = database.prepare(`select ${list} from ${table} where rowid = ?`).get(rowid) as
        Readonly<Record<string, unknown>> | undefined;
      const kept = row && readable(columns, row);
      if (kept) found.push(kept);
    } catch {
      // This row is lost; the next may not be.
      if (found.length === 0 && rowid >= FIRST_ROWS) return [];
    }
  }
  return found;
}

/** A row of which every cell it must have can be read; null otherwise. */
function readable(
  columns: readonly Column[],
  row: Readonly<Record<string, unknown>>,
): SalvagedRow | null {
  const cells: Record<string, Cell> = {};
  for (const column of columns) {
    const cell = cellOf(column, row[column.name]);
    if (cell === undefined || cell === null) {
      if (column.required) return null;
      if (cell === undefined) continue;
    }
    cells[column.name] = cell;
  }
  return cells;
}

function readAll(file: string, shape: Shape): Salvaged {
  const none = new Map<string, readonly SalvagedRow[]>();
  let database: Database.Database;
  try {
    database = new Database(file);
  } catch {
    return none;
  }
  try {
    return new Map(
      [...shape].map(([table, columns]) => {
        try {
          return [table, rowsOf(database, table, columns)] as const;
        } catch {
          return [table, []] as const;
        }
      }),
    );
  } finally {
    database.close();
  }
}

const countOf = (salvaged: Salvaged): number =>
  [...salvaged.values()].reduce((sum, rows) => sum + rows.length, 0);

const PAGE = 4096;
const HEADER_SIZE = 100;

/** The rows that can still be read of a folder's database, which is only copied. */
export async function salvage(folder: string): Promise<Salvaged> {
  const aside = mkdtempSync(join(tmpdir(), 'corvel-salvage-'));
  try {
    const fresh = join(aside, 'fresh');
    (await openDatabase(fresh)).close();
    const sound = join(fresh, DATABASE_FILE);
    const shape = shapeOf(sound);
    copyDatabase(folder, aside);
    const file = join(aside, DATABASE_FILE);
    overwrite(file, HEADER);
    const found = readAll(file, shape);
    if ((found.get('chart') ?? []).length > 0) return found;
    // The first page describes the tables, and is the same in every file of this version but its header.
    overwrite(file, [[HEADER_SIZE, readFileSync(sound).subarray(HEADER_SIZE, PAGE)]]);
    const mended = readAll(file, shape);
    return countOf(mended) > countOf(found) ? mended : found;
  } catch (error) {
    log('warn', 'salvage', { reason: String(error) });
    return new Map();
  } finally {
    rmSync(aside, { recursive: true, force: true });
  }
}

/** Puts rows back into a database that has none of them; one that cannot be is left out. */
export async function putBack(db: Db, salvaged: Salvaged): Promise<void> {
  const writes = [...salvaged].flatMap(([table, rows]) =>
    rows.map((row) =>
      commitTogether(db, (transaction) =>
        transaction
          .insertInto(table as keyof Tables)
          .values(row as never)
          .onConflict((conflict) => conflict.doNothing())
          .execute(),
      ).catch((error: unknown) => {
        log('warn', 'salvage', { table, reason: String(error) });
      }),
    ),
  );
  await Promise.all(writes);
}

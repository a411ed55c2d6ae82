/** What can be read of a damaged file, chart by chart. */
import { readFileSync, mkdtempSync, openSync, closeSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { copyDatabase, DATABASE_FILE, openDatabase } from './database';
import { decode } from './texts';

export interface SalvagedChart {
  readonly id: string;
  readonly text: string;
  readonly plan: string;
  readonly view: string;
  readonly deleted: boolean;
}

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

/** Rows are asked for one by one up to here where the file no longer knows how many it has. */
const MOST_ROWS = 20_000;

type Bytes = ArrayBuffer | null;

function readRow(database: Database.Database, rowid: number): SalvagedChart | null {
  const row = database
    .prepare(
      `select cast(id as blob) as id, cast(text as blob) as text, cast(plan as blob) as plan,
         deleted_at is not null as deleted from chart where rowid = ?`,
    )
    .get(rowid) as { id: Bytes; text: Bytes; plan: Bytes; deleted: number } | undefined;
  const text = decode(row?.text ?? null);
  if (!row || !text) return null;
  return {
    id: decode(row.id)?.text ?? '',
    text: text.text,
    plan: decode(row.plan)?.text ?? '{}',
    view: viewOf(database, rowid),
    deleted: row.deleted !== 0,
  };
}

/** Files of the first version have no such column. */
function viewOf(database: Database.Database, rowid: number): string {
  try {
    const row = database
      .prepare('select cast(view as blob) as view from chart where rowid = ?')
      .get(rowid) as { view: Bytes } | undefined;
    return decode(row?.view ?? null)?.text ?? '{}';
  } catch {
    return '{}';
  }
}

function lastRow(database: Database.Database): number {
  try {
    const row = database.prepare('select max(rowid) as last from chart').get() as { last: number };
    return Math.min(MOST_ROWS, row.last);
  } catch {
    return MOST_ROWS;
  }
}

function readAll(file: string): readonly SalvagedChart[] {
  const database = new Database(file);
  try {
    const found: SalvagedChart[] = [];
    const last = lastRow(database);
    for (let rowid = 1; rowid <= last; rowid++) {
      try {
        const chart = readRow(database, rowid);
        if (chart) found.push(chart);
      } catch {
        // This row is lost; the next may not be.
        if (found.length === 0 && rowid >= FIRST_ROWS) return [];
      }
    }
    return found;
  } catch {
    return [];
  } finally {
    database.close();
  }
}

/** Where not one of the first rows can be read, the file's own description is what is broken. */
const FIRST_ROWS = 50;
const PAGE = 4096;
const HEADER_SIZE = 100;

/** The first page describes the tables, and is the same in every file of this version but its header. */
async function mendFirstPage(file: string, aside: string): Promise<void> {
  const fresh = join(aside, 'fresh');
  (await openDatabase(fresh)).close();
  const page = readFileSync(join(fresh, DATABASE_FILE)).subarray(HEADER_SIZE, PAGE);
  overwrite(file, [[HEADER_SIZE, page]]);
}

/** The charts that can still be read of a folder's database, which is only copied. */
export async function salvage(folder: string): Promise<readonly SalvagedChart[]> {
  const aside = mkdtempSync(join(tmpdir(), 'corvel-salvage-'));
  try {
    copyDatabase(folder, aside);
    const file = join(aside, DATABASE_FILE);
    overwrite(file, HEADER);
    const found = readAll(file);
    if (found.length > 0) return found;
    await mendFirstPage(file, aside);
    return readAll(file);
  } catch {
    return [];
  } finally {
    rmSync(aside, { recursive: true, force: true });
  }
}

/** One server for one data folder: a lock that the system lets go of with the process. */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';

/** Another Corvel serves this data folder. */
export class AlreadyRunning extends Error {
  override readonly name = 'AlreadyRunning';
}

const LOCK_FILE = 'corvel.lock';
const OWNER_FILE = 'running.json';

let held: Database.Database | null = null;

function ownerOf(folder: string): string {
  try {
    const { address, pid } = JSON.parse(readFileSync(join(folder, OWNER_FILE), 'utf8')) as {
      address: string;
      pid: number;
    };
    return ` at ${address} (process ${pid})`;
  } catch {
    return '';
  }
}

/** Takes the folder for this process, or throws {@link AlreadyRunning}. A folder that takes no
 * writing is not locked: nothing can be written there by another either. */
export function lockFolder(folder: string, address: string): void {
  if (held) return;
  let database: Database.Database | null = null;
  try {
    mkdirSync(folder, { recursive: true });
    database = new Database(join(folder, LOCK_FILE));
    database.exec('begin exclusive');
  } catch (error) {
    database?.close();
    if (!/^SQLITE_BUSY/u.test((error as { code?: string }).code ?? '')) return;
    throw new AlreadyRunning(
      `Corvel is already running on ${folder}${ownerOf(folder)}. Open it there, or stop it first.`,
    );
  }
  held = database;
  try {
    writeFileSync(join(folder, OWNER_FILE), JSON.stringify({ address, pid: process.pid }));
  } catch {
    // Only the sentence above knows less.
  }
}

export function unlockFolder(): void {
  held?.close();
  held = null;
}

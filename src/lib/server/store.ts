/** The one open database of this process, or the reason there is none. */
import { copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import {
  BACKUP_FOLDER,
  DamagedDatabaseError,
  DATABASE_FILE,
  type Db,
  listBackups,
  openDatabase,
  type OpenDatabase,
} from './database';
import { seedDemo } from './demo';
import { log } from './log';

export type Store =
  | { readonly state: 'open'; readonly db: Db }
  | { readonly state: 'damaged'; readonly reason: string; readonly backups: readonly string[] };

let store: Store | null = null;
let open: OpenDatabase | null = null;
let backupTimer: NodeJS.Timeout | undefined;

export const dataFolder = (): string => resolve(process.env['CORVEL_DATA'] ?? './data');

const HOUR = 3_600_000;

export async function openStore(): Promise<Store> {
  const folder = dataFolder();
  try {
    open = await openDatabase(folder);
    if (process.env['CORVEL_SEED'] === 'demo') await seedDemo(open.db);
    const { db, backUpDaily } = open;
    backUpDaily(new Date());
    clearInterval(backupTimer);
    backupTimer = setInterval(() => {
      backUpDaily(new Date());
    }, HOUR);
    backupTimer.unref();
    store = { state: 'open', db };
  } catch (error) {
    if (!(error instanceof DamagedDatabaseError)) throw error;
    log('error', 'database damaged', { reason: error.message });
    store = { state: 'damaged', reason: error.message, backups: listBackups(folder) };
  }
  return store;
}

export const currentStore = async (): Promise<Store> => store ?? (await openStore());

export function closeStore(): void {
  clearInterval(backupTimer);
  open?.close();
  open = null;
  store = null;
}

/** Sets the damaged file aside, never deleting it, and opens the named backup in its place. */
export async function restoreBackup(name: string): Promise<boolean> {
  const folder = dataFolder();
  if (store?.state !== 'damaged' || !listBackups(folder).includes(name)) return false;
  const file = join(folder, DATABASE_FILE);
  if (existsSync(file)) renameSync(file, `${file}.damaged-${Date.now()}`);
  for (const suffix of ['-wal', '-shm']) rmSync(file + suffix, { force: true });
  copyFileSync(join(folder, BACKUP_FOLDER, name), file);
  closeStore();
  return (await openStore()).state === 'open';
}

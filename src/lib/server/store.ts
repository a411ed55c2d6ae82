/** The one open database of this process, or the reason there is none. */
import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { clearReceived } from './archive/files';
import {
  backupFiles,
  backupPath,
  backupsWithCharts,
  clearUnfinished,
  compact,
  listBackups,
  takesNamedIn,
} from './backups';
import {
  DATABASE_FILE,
  databaseFiles,
  type Db,
  openDatabase,
  type OpenDatabase,
  openToRead,
} from './database';
import { seedDemo } from './demo';
import { answerHere, answerOf } from './desk/desk';
import { backUpIfDue } from './desk/jobs';
import { dataFolder, readFrom } from './folder';
import { beginLickBook, sweepSounds } from './licks';
import { lockFolder, unlockFolder } from './lock';
import { log } from './log';
import { problemOf, type ProblemKind, StoreProblem } from './problems';
import { putBack, salvage } from './salvage';
import { clearUnfinishedSounds } from './sounds';

type ClosedKind = Exclude<ProblemKind, 'busy'>;

export type Store =
  | {
      readonly state: 'open';
      readonly db: Db;
      /** Why nothing can be written; null where it can. */
      readonly limited: 'read-only' | 'full' | null;
    }
  | {
      readonly state: 'closed';
      readonly kind: ClosedKind;
      readonly reason: string;
      readonly backups: readonly string[];
    };

let store: Store | null = null;
let open: OpenDatabase | null = null;
let backupTimer: NodeJS.Timeout | undefined;

const BACKUP_CHECK = 600_000;

/** Where this server is to be found, for the sentence a second one is refused with. */
const address = (): string =>
  `http://${process.env['HOST'] ?? '127.0.0.1'}:${process.env['PORT'] ?? '4173'}/`;

function isGone(folder: string): boolean {
  const file = join(folder, DATABASE_FILE);
  return !existsSync(file) || statSync(file).size === 0;
}

/** A file that is gone beside backups of charts is no first start. */
function checkPresent(folder: string): void {
  if (isGone(folder) && backupsWithCharts(folder).length > 0) {
    throw new StoreProblem('missing', 'There is no data file, but there are backups.');
  }
}

async function openFolder(folder: string, begun: boolean): Promise<OpenDatabase> {
  try {
    if (!begun) checkPresent(folder);
    return await openDatabase(folder);
  } catch (error) {
    const problem = problemOf(error);
    if (problem?.kind !== 'read-only' && problem?.kind !== 'full') throw error;
    if (isGone(folder)) throw problem;
    log('warn', 'opened for reading only', { reason: problem.message });
    return openToRead(folder, problem.kind);
  }
}

async function start(begun: boolean): Promise<Store> {
  const folder = dataFolder();
  lockFolder(folder, address());
  try {
    const opened = await openFolder(folder, begun);
    open = opened;
    readFrom(opened.folder);
    const { db, limited } = opened;
    if (limited === null) {
      clearUnfinished(folder);
      await clearUnfinishedSounds(folder);
      await clearReceived(folder);
      await beginLickBook(db);
      await sweepSounds(db, folder, () => takesElsewhere(folder));
      if (process.env['CORVEL_SEED'] === 'demo') await seedDemo(db);
      await backUpNow(opened, answerHere);
      clearInterval(backupTimer);
      backupTimer = setInterval(() => void backUpNow(opened, answerOf), BACKUP_CHECK);
      backupTimer.unref();
    }
    store = { state: 'open', db, limited };
  } catch (error) {
    letGo();
    const problem = problemOf(error);
    if (!problem) throw error;
    store = closed(problem);
  }
  return store;
}

/** Makes the backup that is due, if one is: `ask` says where. */
async function backUpNow(opened: OpenDatabase, ask: typeof answerOf): Promise<void> {
  try {
    await backUpIfDue(opened, new Date(), ask);
  } catch (error) {
    log('warn', 'backup failed', { reason: String(error) });
  }
}

function closed(problem: StoreProblem): Store {
  log('error', `data file: ${problem.kind}`, { reason: problem.message });
  const kind = problem.kind === 'busy' ? 'full' : problem.kind;
  return { state: 'closed', kind, reason: problem.message, backups: listBackups(dataFolder()) };
}

let starting: Promise<Store> | null = null;

/** Opens the database once, however many ask. */
export const currentStore = async (): Promise<Store> => {
  if (store) return store;
  starting ??= start(false).finally(() => {
    starting = null;
  });
  return starting;
};

/** A damage met while serving: from here on there is only the way back. */
export function reportDamage(problem: StoreProblem): void {
  if (store?.state !== 'open') return;
  letGo();
  store = closed(problem);
}

function letGo(): void {
  clearInterval(backupTimer);
  open?.close();
  open = null;
  store = null;
}

export function closeStore(): void {
  letGo();
  unlockFolder();
}

/** The takes that a backup or a database that was set aside still names. */
const takesElsewhere = (folder: string): ReadonlySet<string> =>
  new Set([...backupFiles(folder), ...setAsideFiles(folder)].flatMap((file) => takesNamedIn(file)));

const SET_ASIDE = 'set-aside-';

const setAsideFiles = (folder: string): readonly string[] =>
  readdirSync(folder)
    .filter((name) => name.startsWith(SET_ASIDE))
    .map((name) => join(folder, name, DATABASE_FILE));

/** Moves the database with its logs into a folder of their own: nothing is ever thrown away. */
function setAside(folder: string): void {
  const aside = join(folder, SET_ASIDE + compact(new Date()));
  const present = databaseFiles(folder);
  if (present.length === 0) return;
  mkdirSync(aside, { recursive: true });
  for (const name of present) renameSync(join(folder, name), join(aside, name));
}

const mayRecover = (): boolean => store?.state === 'closed' && store.kind !== 'newer';

/** Sets the file aside and opens the named backup in its place. */
export async function restoreBackup(name: string): Promise<boolean> {
  const folder = dataFolder();
  if (!mayRecover() || !listBackups(folder).includes(name)) return false;
  setAside(folder);
  const file = join(folder, DATABASE_FILE);
  copyFileSync(backupPath(folder, name), `${file}.part`);
  renameSync(`${file}.part`, file);
  letGo();
  return (await start(true)).state === 'open';
}

/** Sets the file aside and begins anew with the rows that can still be read of it. */
export async function restoreReadable(): Promise<boolean> {
  const folder = dataFolder();
  if (!mayRecover()) return false;
  const salvaged = await salvage(folder);
  setAside(folder);
  letGo();
  try {
    // Before anything of our own is put into the new file, as the starter licks would be.
    const fresh = await openDatabase(folder);
    await putBack(fresh.db, salvaged);
    fresh.close();
  } catch (error) {
    const problem = problemOf(error);
    if (!problem) throw error;
    store = closed(problem);
    return false;
  }
  return (await start(true)).state === 'open';
}

/** Sees whether what kept the file closed is over: room made, the folder made writable. */
export async function tryAgain(): Promise<boolean> {
  letGo();
  const again = await start(false);
  return again.state === 'open' && again.limited === null;
}

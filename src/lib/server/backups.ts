/** Backups: whole copies of the database beside it, checked before they count. */
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import { lookUp } from '$core/lists';
import { log } from './log';
import type { Connection } from './sqlite';
import { counted } from '$core/words';

const BACKUP_FOLDER = 'backups';

/** What a backup was made for; of each kind the last seven are kept. */
export type BackupKind = 'daily' | 'hours' | 'stop' | 'before' | 'import';
const KEPT = 7;
const EXTENSION = '.sqlite';
const UNFINISHED = '.part';

const backupFolder = (folder: string) => join(folder, BACKUP_FOLDER);

export const backupPath = (folder: string, name: string): string =>
  join(backupFolder(folder), name);

const kindOf = (name: string): string => name.split('-')[1]?.split('.')[0] ?? '';

/** How many charts a database file holds; null when it is no sound database of Corvel's. */
export function chartsIn(file: string): number | null {
  let database: Database.Database | null = null;
  try {
    if (statSync(file).size === 0) return null;
    database = new Database(file);
    const [check] = database.prepare('pragma quick_check').all() as { quick_check: string }[];
    if (check?.quick_check !== 'ok') return null;
    const row = database.prepare('select count(*) as charts from chart').get() as {
      charts: number;
    };
    return row.charts;
  } catch {
    return null;
  } finally {
    database?.close();
  }
}

function files(folder: string): readonly string[] {
  try {
    return readdirSync(backupFolder(folder));
  } catch {
    // There are none yet, or something else stands in their place.
    return [];
  }
}

/** The ids of the takes a database file has; none where it cannot be read. */
export function takesNamedIn(file: string): readonly string[] {
  let database: Database.Database | null = null;
  try {
    database = new Database(file);
    const rows = database
      .prepare(
        'select cast(id as blob) as id from lick where take_of is not null and deleted_at is null',
      )
      .all() as { readonly id: ArrayBuffer }[];
    return rows.map(({ id }) => new TextDecoder().decode(id));
  } catch {
    return [];
  } finally {
    database?.close();
  }
}

/** Every backup's file. */
export const backupFiles = (folder: string): readonly string[] =>
  files(folder)
    .filter((name) => name.endsWith(EXTENSION))
    .map((name) => backupPath(folder, name));

/** Sound backups of at least so many charts, newest first; each file that is wanted is opened once. */
function soundBackups(
  folder: string,
  least: number,
  wanted: (name: string) => boolean = () => true,
): readonly string[] {
  return files(folder)
    .filter((name) => name.endsWith(EXTENSION) && wanted(name))
    .filter((name) => (chartsIn(backupPath(folder, name)) ?? -1) >= least)
    .sort()
    .reverse();
}

/** Names of the backups that could be gone back to, newest first. */
export const listBackups = (folder: string): readonly string[] => soundBackups(folder, 0);

const KIND_WORDS: Readonly<Record<BackupKind, string>> = {
  daily: 'the first of its day',
  hours: 'after some hours of change',
  stop: 'at a clean stop',
  before: 'before an upgrade',
  import: 'before an archive was imported',
};

/** When a backup was made, what for, and what is in it, in words. */
export function describeBackup(folder: string, name: string): string {
  const [, year, month, day, hour, minute] =
    /^(\d{4})(\d\d)(\d\d)(?:T(\d\d)(\d\d))?/u.exec(name) ?? [];
  const when = hour ? `${year}-${month}-${day}, ${hour}:${minute} UTC` : `${year}-${month}-${day}`;
  const charts = chartsIn(backupPath(folder, name)) ?? 0;
  const kind = lookUp(KIND_WORDS, kindOf(name));
  const inside = counted(charts, 'chart');
  return [when, kind, inside].filter((part) => part !== undefined).join(', ');
}

/** Backups that hold charts: what a player would miss. */
export const backupsWithCharts = (folder: string): readonly string[] => soundBackups(folder, 1);

/** Whether a sound backup of this kind was made on the day. */
export const hasBackup = (folder: string, day: string, kind: BackupKind): boolean =>
  soundBackups(folder, 0, (name) => name.startsWith(day) && kindOf(name) === kind).length > 0;

function flush(path: string): void {
  const handle = openSync(path, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Sets down what was begun and never ended, by a kill in the midst of it. */
export function clearUnfinished(folder: string): void {
  for (const name of files(folder).filter((one) => one.includes(UNFINISHED))) {
    rmSync(backupPath(folder, name), { force: true });
  }
}

export const compact = (now: Date): string => now.toISOString().replace(/[-:]/gu, '').slice(0, 15);

/** Drops what is more than seven of a kind, and what is broken. */
function thin(folder: string): void {
  const sound = listBackups(folder);
  const kinds = new Set(sound.map(kindOf));
  const kept = new Set(
    [...kinds].flatMap((kind) => sound.filter((name) => kindOf(name) === kind).slice(0, KEPT)),
  );
  for (const name of files(folder)) {
    if (name.endsWith(EXTENSION) && !kept.has(name))
      rmSync(backupPath(folder, name), { force: true });
  }
}

/**
 * Copies the database as it is now into the backups: written aside, checked, flushed, renamed. A
 * backup that fails is no reason to stop; its name, or null where none was made.
 */
export function backUp(
  connection: Connection,
  folder: string,
  kind: BackupKind,
  now: Date,
): string | null {
  try {
    mkdirSync(backupFolder(folder), { recursive: true });
    const name = `${compact(now)}-${kind}${EXTENSION}`;
    const target = backupPath(folder, name);
    const aside = target + UNFINISHED;
    rmSync(aside, { force: true });
    try {
      connection.all('vacuum into ?', [aside]);
      if (chartsIn(aside) === null) throw new Error('The copy is not sound.');
      flush(aside);
      renameSync(aside, target);
      flush(backupFolder(folder));
    } finally {
      rmSync(aside, { force: true });
    }
    thin(folder);
    return name;
  } catch (error) {
    log('warn', 'backup failed', { reason: String(error) });
    return null;
  }
}

/**
 * Work on the whole book, that would hold up everyone else: done on a connection of its own, in a thread where
 * one can be had. Each job tells what it makes piece by piece, as it is asked for.
 */
import { createReadStream } from 'node:fs';
import { log } from '../log';
import { backUp, type BackupKind, backupPath, listBackups } from '../backups';
import { readArchive } from '../archive/read';
import {
  type Change,
  type Mode,
  previewArchive,
  takeArchive,
  takeBack,
  takenIn,
} from '../archive/take';
import { writeArchive } from '../archive/write';
import { type LogTaken, takeLog } from '../stints';
import { openBeside, openCopy, type OpenDatabase } from '../database';

export type DeskJob =
  | { readonly kind: 'export'; readonly made: string }
  | { readonly kind: 'preview'; readonly file: string; readonly mode: Mode }
  | { readonly kind: 'take'; readonly file: string; readonly mode: Mode; readonly now: string }
  /** Takes back the archive that was taken in last. */
  | { readonly kind: 'back'; readonly now: string }
  | { readonly kind: 'log'; readonly file: string }
  | { readonly kind: 'backup'; readonly of: BackupKind; readonly now: string };

export type Taken =
  | { readonly kind: 'taken'; readonly changes: readonly Change[] }
  | { readonly kind: 'refused'; readonly message: string }
  /** No backup could be made before. */
  | { readonly kind: 'unsafe' };

/** What a job tells: pieces of a file, what became of an archive, whether a backup was made. */
export type Told = Uint8Array | Taken | LogTaken | boolean;

/** Where the database stands, and where everything else is kept. */
export interface Places {
  readonly database: string;
  readonly folder: string;
}

export async function* work({ database, folder }: Places, job: DeskJob): AsyncGenerator<Told> {
  const { db, connection, close } = openBeside(database);
  /** What was written goes from the log into the file here: otherwise the next save would have to wait for it. */
  const settle = () => void connection.all('pragma wal_checkpoint(passive)');
  try {
    switch (job.kind) {
      case 'export':
        yield* writeArchive(db, folder, job.made);
        return;
      case 'backup':
        yield backUp(connection, folder, job.of, new Date(job.now)) !== null;
        return;
      case 'back': {
        const taken = await takenIn(db);
        if (!taken || !listBackups(folder).includes(taken.backup)) {
          yield { kind: 'refused', message: 'There is no archive to be taken back any more.' };
          return;
        }
        const copy = await openCopy(backupPath(folder, taken.backup));
        try {
          const changes = await takeBack(db, taken, copy.db, job.now);
          settle();
          yield { kind: 'taken', changes };
        } finally {
          copy.close();
        }
        return;
      }
      case 'log': {
        const taken = await takeLog(db, createReadStream(job.file));
        settle();
        yield taken;
        return;
      }
      case 'preview':
      case 'take': {
        const read = await readArchive(job.file);
        if (!read.ok) {
          yield { kind: 'refused', message: read.message };
          return;
        }
        const { archive } = read;
        try {
          if (job.kind === 'preview') {
            yield { kind: 'taken', changes: await previewArchive(db, archive, job.mode) };
          } else {
            const { mode, now } = job;
            const backup = backUp(connection, folder, 'import', new Date(now));
            if (backup === null) yield { kind: 'unsafe' };
            else {
              const changes = await takeArchive(db, folder, archive, { mode, now, backup });
              settle();
              log('info', 'archive taken in', { mode });
              yield { kind: 'taken', changes };
            }
          }
        } finally {
          archive.close();
        }
      }
    }
  } finally {
    close();
  }
}

/** Makes the backup that is due, if one is. */
export async function backUpIfDue(
  { backupDue, backedUp }: OpenDatabase,
  now: Date,
  ask: (job: DeskJob) => Promise<Told | null>,
): Promise<void> {
  const of = backupDue(now);
  if (of === null) return;
  if ((await ask({ kind: 'backup', of, now: now.toISOString() })) === true) backedUp(now);
}

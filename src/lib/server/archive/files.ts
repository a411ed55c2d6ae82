/** Large files on their way: received into a file beside the database, sent as they are written. */
import { randomBytes } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import { atDesk } from '../desk/desk';
import { dataFolder } from '../folder';
import { streamOf } from '../streams';

/** Bytes of a file that is taken in. */
export const ARCHIVE_LIMIT = 256 * 2 ** 20;

const FOLDER = 'incoming';

/** Sets down what was begun and never ended, by a kill in the midst of it. */
export async function clearReceived(folder: string): Promise<void> {
  const names = await readdir(join(folder, FOLDER)).catch(() => []);
  for (const name of names) await rm(join(folder, FOLDER, name), { force: true });
}

interface Received {
  readonly file: string;
  /** Removes it. */
  readonly letGo: () => Promise<void>;
}

/** A request's body as a file; null where it is too large. */
export async function receiveFile(request: Request): Promise<Received | null> {
  const folder = join(dataFolder(), FOLDER);
  await mkdir(folder, { recursive: true });
  const file = join(folder, `${randomBytes(8).toString('hex')}`);
  const letGo = () => rm(file, { force: true });
  let size = 0;
  let tooLarge = false;
  const bounded = new Transform({
    transform(piece: Uint8Array, _encoding, done) {
      size += piece.byteLength;
      tooLarge ||= size > ARCHIVE_LIMIT;
      // What is too large is read to its end, and forgotten.
      done(null, tooLarge ? undefined : piece);
    },
  });
  const body = request.body ? Readable.fromWeb(request.body as NodeStream) : Readable.from([]);
  try {
    await pipeline(body, bounded, createWriteStream(file));
  } catch (error) {
    await letGo();
    // The adapter's own limit, or a client that went away; a full disk is the store's to say.
    if ((error as { code?: string }).code === undefined) return null;
    throw error;
  }
  if (!tooLarge) return { file, letGo };
  await letGo();
  return null;
}

/** The whole book as a stream; its first piece is there when it begins, so that what fails at once is said. */
export async function sentArchive(made: string): Promise<ReadableStream> {
  const pieces = atDesk({ kind: 'export', made }) as AsyncGenerator<Uint8Array>;
  const first = await pieces.next();
  async function* all() {
    try {
      if (first.done) return;
      yield first.value;
      yield* pieces;
    } finally {
      await pieces.return(undefined);
    }
  }
  return streamOf(all());
}

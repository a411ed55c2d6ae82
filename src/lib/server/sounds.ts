/** The sound of takes, kept on wish: a WAV file for each in a folder of the data folder. */
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';

const FOLDER = 'takes';
const ENDING = '.wav';
const UNFINISHED = '.part';
/** All sounds together, so that an archive with them can be taken in again. */
export const SOUNDS_LIMIT = 200 * 2 ** 20;

/** Ids are our own letters and digits; nothing else may become a path. */
const pathOf = (folder: string, id: string): string | null =>
  /^[\w-]{1,60}$/u.test(id) ? join(folder, FOLDER, id + ENDING) : null;

/** The ids of the takes whose sound is there. */
export async function soundsIn(folder: string): Promise<readonly string[]> {
  const names = await readdir(join(folder, FOLDER)).catch(() => []);
  return names.filter((name) => name.endsWith(ENDING)).map((name) => name.slice(0, -ENDING.length));
}

/** Whether bytes are a WAV file by their first words. */
export function isWav(bytes: Uint8Array): boolean {
  const words = new TextDecoder('latin1').decode(bytes.subarray(0, 12));
  return words.startsWith('RIFF') && words.endsWith('WAVE');
}

/** Keeps a sound; written aside first, so that there is never half of one. */
export async function putSound(folder: string, id: string, bytes: Uint8Array): Promise<void> {
  const path = pathOf(folder, id);
  if (path === null) return;
  await mkdir(join(folder, FOLDER), { recursive: true });
  // Two that come at once do not write into one another.
  const aside = `${path}.${randomBytes(6).toString('hex')}${UNFINISHED}`;
  try {
    await writeFile(aside, bytes, { flush: true });
    await rename(aside, path);
  } catch (error) {
    // Half a sound would fill the disk that had no room for it.
    await rm(aside, { force: true });
    throw error;
  }
}

/** Room that is promised to sounds which are being written, until they are told of. */
let promised = 0;

/** How the database sees the sounds. */
export interface Told {
  /** Bytes of all others. */
  readonly others: () => Promise<number>;
  /** Says that it is kept; whether there is a take it belongs to. */
  readonly mark: () => Promise<boolean>;
}

/** Keeps a sound where there is room for it beside all others, those that are being written too. */
export async function keepSound(
  folder: string,
  id: string,
  bytes: Uint8Array,
  { others, mark }: Told,
): Promise<'kept' | 'full' | 'missing'> {
  const size = bytes.byteLength;
  if ((await others()) + promised + size > SOUNDS_LIMIT) return 'full';
  promised += size;
  try {
    await putSound(folder, id, bytes);
    if (await mark()) return 'kept';
    await removeSound(folder, id);
    return 'missing';
  } finally {
    promised -= size;
  }
}

/** Sets down what was begun and never ended, by a kill in the midst of it. */
export async function clearUnfinishedSounds(folder: string): Promise<void> {
  const names = await readdir(join(folder, FOLDER)).catch(() => []);
  for (const name of names.filter((one) => one.endsWith(UNFINISHED)))
    await rm(join(folder, FOLDER, name), { force: true });
}

/** The sound of a take; null where it has none. */
export async function readSound(
  folder: string,
  id: string,
): Promise<Uint8Array<ArrayBuffer> | null> {
  const path = pathOf(folder, id);
  return path === null
    ? null
    : readFile(path).then(
        (bytes) => new Uint8Array(bytes),
        () => null,
      );
}

export async function removeSound(folder: string, id: string): Promise<void> {
  const path = pathOf(folder, id);
  if (path !== null) await rm(path, { force: true });
}

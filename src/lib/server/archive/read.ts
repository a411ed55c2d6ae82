/** Reading an archive: lengths before contents, row by row, and the first complaint ends it. */
import { promisify } from 'node:util';
import { type Entry, open as openZipFile, type Options, type ZipFile } from 'yauzl';
import { z } from 'zod';
import { settingsSchema } from '$lib/settings/settings';
import { elementsOf, NoList } from './json';
import {
  type Archive,
  FORMAT,
  NAMES,
  type Row,
  type Rows,
  SETTINGS,
  SOUND,
  TABLES,
  VERSION,
} from './rows';
import { rest } from '../desk/rest';

/** Bytes of one file of the archive, unpacked; and of all that is read of it. */
const FILE_LIMIT = 256 * 2 ** 20;
const WHOLE_LIMIT = 1024 * 2 ** 20;
/** Files in it, and rows of a table. */
const MOST_FILES = 200_000;
const MOST_ROWS = 200_000;
const MANIFEST = 'manifest.json';

type ArchiveRead =
  | { readonly ok: true; readonly archive: Archive }
  | { readonly ok: false; readonly message: string };

/** Why an archive is not taken. */
class Refusal extends Error {}

const openZip = promisify<string, Options, ZipFile>(openZipFile);

/** The files of a zip that are read, by their names. */
async function entriesOf(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  const wanted = new Set<string>([...NAMES.map((name) => TABLES[name].file), SETTINGS, MANIFEST]);
  if (zip.entryCount > MOST_FILES) throw new Refusal('This archive holds too many files.');
  const entries = new Map<string, Entry>();
  let unpacked = 0;
  return new Promise((resolve, reject) => {
    zip.on('error', reject);
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      const { fileName, uncompressedSize } = entry;
      if (wanted.has(fileName) || SOUND.test(fileName)) {
        unpacked += uncompressedSize;
        if (uncompressedSize > FILE_LIMIT || unpacked > WHOLE_LIMIT) {
          reject(new Refusal('This archive unpacks to more than Corvel takes.'));
          return;
        }
        entries.set(fileName, entry);
      }
      zip.readEntry();
    });
    zip.readEntry();
  });
}

/** What a file of the zip holds, piece by piece; nothing where there is no such file. */
async function* piecesOf(zip: ZipFile, entry: Entry | undefined): AsyncGenerator<Uint8Array> {
  if (!entry) return;
  const stream = await zip.openReadStreamPromise(entry);
  for await (const piece of stream) yield piece as Uint8Array;
}

async function bytesOf(zip: ZipFile, entry: Entry | undefined): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  for await (const piece of piecesOf(zip, entry)) pieces.push(piece);
  return Buffer.concat(pieces);
}

function parsed(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as unknown;
  } catch {
    return undefined;
  }
}

/** The rows of a table, each as its schema has it. */
async function rowsIn(
  zip: ZipFile,
  entry: Entry | undefined,
  { file, row }: (typeof TABLES)[keyof typeof TABLES],
): Promise<readonly Row[]> {
  const unreadable = new Refusal(`${file} in this archive cannot be read; nothing was changed.`);
  const twice = new Refusal(`${file} in this archive names one thing twice; nothing was changed.`);
  const rows: Row[] = [];
  const ids = new Set<string>();
  try {
    for await (const one of elementsOf(piecesOf(zip, entry), '$.*')) {
      const read = row.safeParse(one);
      if (!read.success || rows.length >= MOST_ROWS) throw unreadable;
      if (ids.has(read.data.id)) throw twice;
      ids.add(read.data.id);
      rows.push(read.data);
      await rest();
    }
  } catch (error) {
    throw error instanceof NoList ? unreadable : error;
  }
  return rows;
}

async function contentOf(zip: ZipFile): Promise<Archive> {
  const entries = await entriesOf(zip);
  const manifest = z
    .object({ format: z.literal(FORMAT), version: z.int() })
    .safeParse(parsed(await bytesOf(zip, entries.get(MANIFEST))));
  if (!manifest.success) throw new Refusal('This zip is no archive of Corvel: it has no manifest.');
  if (manifest.data.version > VERSION)
    throw new Refusal('This archive is of a newer Corvel; bring this one up to date first.');
  const rows: Record<string, readonly Row[]> = {};
  for (const name of NAMES)
    rows[name] = await rowsIn(zip, entries.get(TABLES[name].file), TABLES[name]);
  const kept = await bytesOf(zip, entries.get(SETTINGS));
  const sounds = new Map(
    [...entries].flatMap(([name, entry]) => {
      const take = SOUND.exec(name)?.[1];
      return take === undefined ? [] : [[take, entry] as const];
    }),
  );
  return {
    rows: rows as unknown as Rows,
    settings: settingsSchema.safeParse(parsed(kept)).success
      ? new TextDecoder().decode(kept)
      : null,
    sounds: new Set(sounds.keys()),
    soundOf: (take) => bytesOf(zip, sounds.get(take)),
    close: () => zip.close(),
  };
}

/** Reads an archive's file, or says why not. */
export async function readArchive(file: string): Promise<ArchiveRead> {
  let zip: ZipFile | null = null;
  try {
    zip = await openZip(file, { lazyEntries: true, autoClose: false });
    return { ok: true, archive: await contentOf(zip) };
  } catch (error) {
    zip?.close();
    const message =
      error instanceof Refusal ? error.message : 'This is not a zip file that can be read.';
    return { ok: false, message };
  }
}

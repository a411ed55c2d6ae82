/**
 * The whole book as one open archive: a zip of JSON (charts with their plans, licks and takes, log,
 * cards, settings) and the takes' sound as WAV; with every chart as MusicXML and every melody, sheet,
 * lick and take as MIDI beside it; a manifest and no secret. It is written as it is read, piece by piece.
 */
import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { sql } from 'kysely';
import type { Db } from '../database';
import { PLAYER } from '../settings';
import { readSound } from '../sounds';
import { joined } from '../streams';
import { readRows } from '../texts';
import { FORMAT, type Name, NAMES, type Row, SETTINGS, TABLES, VERSION } from './rows';
import { chartFiles, lickFiles } from './scores';

/** Rows that are read in one go. */
const PORTION = 100;
/** The same content gives the same bytes. */
const MADE = new Date('1980-01-02T00:00:00Z');
/** Bytes that are handed on at once: fewer cost whoever hands them on a message each, more hold others up. */
const PIECE = 2 ** 17;

/** Which rows of a table are kept, in the order of their ids. */
async function* portionsOf(db: Db, name: Name): AsyncGenerator<readonly unknown[]> {
  const there = name === 'card' ? sql`1` : sql`deleted_at is null`;
  const { rows } = await sql<{ readonly rowid: number }>`
    select rowid from ${sql.table(name)} where ${there} order by id
  `.execute(db);
  for (let from = 0; from < rows.length; from += PORTION) {
    const some = rows.slice(from, from + PORTION).map(({ rowid }) => rowid);
    yield await readRows(db, name, sql`rowid in (${sql.join(some)})`, sql`id`);
  }
}

/** All that is kept of a table as an archive has it, in memory; what is too damaged is left out. */
export async function rowsOf(db: Db, name: Name): Promise<readonly Row[]> {
  const all: Row[] = [];
  for await (const portion of portionsOf(db, name))
    all.push(...portion.flatMap((one) => (TABLES[name].row.safeParse(one).data as Row) ?? []));
  return all;
}

/** A zip that is written file by file; what is finished is taken out of it in between. */
function createZip() {
  let done: Uint8Array[] = [];
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    done.push(piece);
  });
  const begin = (file: ZipDeflate | ZipPassThrough) => {
    file.mtime = MADE;
    zip.add(file);
    return file;
  };
  const NONE = new Uint8Array();
  return {
    /** What was written since it was asked last. */
    take(): readonly Uint8Array[] {
      const taken = done;
      done = [];
      return taken;
    },
    text(name: string) {
      const file = begin(new ZipDeflate(name));
      return {
        add: (text: string) => file.push(strToU8(text), false),
        end: (text: string) => file.push(strToU8(text), true),
      };
    },
    whole(name: string, bytes: Uint8Array) {
      begin(new ZipDeflate(name)).push(bytes, true);
    },
    /** Sounds hardly shrink: they are put in as they are. */
    *asIs(name: string, bytes: Uint8Array) {
      const file = begin(new ZipPassThrough(name));
      for (let from = 0; from < bytes.length; from += PIECE) {
        file.push(bytes.subarray(from, from + PIECE), false);
        yield* this.take();
      }
      file.push(NONE, true);
    },
    end: () => zip.end(),
  };
}

/** Everything as the bytes of a zip, as of one moment; the sounds are those in the data folder. */
export async function* writeArchive(
  db: Db,
  folder: string,
  made: string,
): AsyncGenerator<Uint8Array> {
  // Reads as of now, whatever is saved meanwhile; it holds up nobody who writes.
  await sql.raw('begin deferred').execute(db);
  try {
    yield* inBlocks(pieces(db, folder, made));
  } finally {
    await sql.raw('end').execute(db);
  }
}

/** Pieces put together to blocks, each with memory of its own, so that it can be given away. */
async function* inBlocks(some: AsyncGenerator<Uint8Array>): AsyncGenerator<Uint8Array> {
  let waiting: Uint8Array[] = [];
  let size = 0;
  for await (const piece of some) {
    waiting.push(piece);
    size += piece.byteLength;
    if (size < PIECE) continue;
    yield joined(waiting, size);
    [waiting, size] = [[], 0];
  }
  if (size > 0) yield joined(waiting, size);
}

async function* pieces(db: Db, folder: string, made: string): AsyncGenerator<Uint8Array> {
  const zip = createZip();
  const counts: Record<string, number> = {};
  const damaged: Record<string, number> = {};
  const sounding: string[] = [];
  for (const name of NAMES) {
    const { file, row, words } = TABLES[name];
    const list = zip.text(file);
    let [kept, lost] = [0, 0];
    for await (const portion of portionsOf(db, name)) {
      for (const one of portion) {
        const read = row.safeParse(one);
        if (!read.success) {
          lost += 1;
          continue;
        }
        const text = JSON.stringify(read.data, null, 1).replaceAll('\n', '\n ');
        list.add(`${kept === 0 ? '[\n ' : ',\n '}${text}`);
        kept += 1;
      }
      yield* zip.take();
    }
    list.end(kept === 0 ? '[]\n' : '\n]\n');
    counts[words] = kept;
    // What no longer is what it must be is left out, and said.
    if (lost > 0) damaged[words] = lost;
  }
  const [setting] = await readRows(db, 'setting', sql`name = ${PLAYER}`);
  if (setting) zip.whole(SETTINGS, strToU8(String(setting['value'])));
  for await (const portion of portionsOf(db, 'chart')) {
    for (const one of portion) {
      const chart = TABLES.chart.row.safeParse(one).data;
      for (const [file, bytes] of Object.entries(chart ? chartFiles(chart) : {}))
        zip.whole(file, bytes);
    }
    yield* zip.take();
  }
  for await (const portion of portionsOf(db, 'lick')) {
    for (const one of portion) {
      const lick = TABLES.lick.row.safeParse(one).data;
      for (const [file, bytes] of Object.entries(lick ? lickFiles(lick) : {}))
        zip.whole(file, bytes);
      if (lick && lick.sound !== null) sounding.push(lick.id);
    }
    yield* zip.take();
  }
  for (const id of sounding) {
    const sound = await readSound(folder, id);
    if (sound) yield* zip.asIs(`takes/${id}.wav`, sound);
  }
  const manifest = {
    format: FORMAT,
    version: VERSION,
    made,
    counts,
    ...(Object.keys(damaged).length > 0 ? { damaged } : {}),
    files: Object.fromEntries(NAMES.map((name) => [TABLES[name].file, TABLES[name].words])),
    note: 'The JSON files and the takes’ sound are what is read back; MusicXML and MIDI are for other programs.',
  };
  zip.whole('manifest.json', strToU8(`${JSON.stringify(manifest, null, 1)}\n`));
  zip.end();
  yield* zip.take();
}

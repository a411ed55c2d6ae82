/**
 * The whole book as one open archive: a zip of JSON (charts with their plans, licks and takes, log,
 * cards, settings) and the takes' sound as WAV; with every chart as MusicXML and every melody, sheet,
 * lick and take as MIDI beside it; a manifest and no secret. It comes back as it was.
 */
import { strFromU8, strToU8, unzipSync, type Zippable, zipSync } from 'fflate';
import { z } from 'zod';
import { settingsSchema } from '$lib/settings/settings';
import { chartFiles, lickFiles } from './archiveScores';
import { EXTENTS } from '$core/time/extent';
import { STINT } from '$lib/log/messages';
import { commitTogether } from './commits';
import { STARTER } from './licks';
import type { Db } from './database';
import { isWav, putSound, readSound, removeSound, soundsIn } from './sounds';
import { sql } from 'kysely';
import { bytesOf, decode, readRows } from './texts';

const FORMAT = 'corvel-archive';
const VERSION = 1;
/** Of the zip, and of what it unpacks to. */
export const ARCHIVE_LIMIT = 256 * 2 ** 20;
const UNPACKED_LIMIT = 512 * 2 ** 20;

const text = (most: number) => z.string().max(most);
const moment = z.iso.datetime({ offset: true });
const maybe = <T extends z.ZodType>(schema: T) => schema.nullable();
const id = z.string().min(1).max(200);

const chartRow = z.object({
  ...{ id, title: text(2_000), text: text(400_000), plan: text(2_000_000), view: text(400_000) },
  ...{ key: maybe(text(60)), tempo: maybe(z.number()), bars: maybe(z.number()) },
  ...{ created_at: moment, updated_at: moment, opened_at: maybe(moment) },
});
const lickRow = z.object({
  ...{ id, title: text(2_000), tags: text(10_000), source: text(2_000), chart: text(40_000) },
  ...{ notes: text(2_000_000), created_at: moment, updated_at: moment },
  // Not in archives of before there were takes.
  ...{ take_of: maybe(text(200)).default(null), sound: maybe(z.int()).default(null) },
});
const fret = z.int().min(0).max(36);
const bpm = z.number().min(1).max(1_000);
const count = z.int().min(0).max(100_000);
const stintRow = z
  .object({
    ...{ id, at: moment, time: z.number(), chart: text(200), exercise: text(60) },
    ...{ low: fret, high: fret, extent: z.enum(EXTENTS), tempo_from: bpm, tempo: bpm },
    minutes: z.number().min(0).max(STINT.most),
    ...{ asked: maybe(count), landed: maybe(count), note: text(2_000) },
    earlier_rule: z.int().min(0).max(1).optional(),
  })
  // Archives of before there was one rule of landing do not say by which they were judged.
  .transform(({ earlier_rule, ...row }) => ({
    ...row,
    // The moment is what it was; the number only repeats it.
    time: Date.parse(row.at),
    earlier_rule: earlier_rule ?? (row.asked === null || row.exercise === 'drills' ? 0 : 1),
  }));
/** What the scheduler keeps of a card. */
const isCardState = (json: string): boolean => {
  try {
    return cardState.safeParse(JSON.parse(json)).success;
  } catch {
    return false;
  }
};
const cardState = z.looseObject({
  ...{ due: moment, stability: z.number(), difficulty: z.number(), reps: z.int(), state: z.int() },
});
const cardRow = z.object({
  ...{ id, state: text(20_000).refine(isCardState), due: z.number(), seen: z.int().min(0) },
});

/** The tables that are kept, each a file of the archive; what differs by no more than these is the same. */
const TABLES = {
  chart: { file: 'charts.json', row: chartRow, words: 'charts' },
  lick: { file: 'licks.json', row: lickRow, words: 'licks and takes' },
  stint: { file: 'log.json', row: stintRow, words: 'stints' },
  card: { file: 'cards.json', row: cardRow, words: 'drill cards' },
} as const;
type Name = keyof typeof TABLES;
const NAMES = Object.keys(TABLES) as readonly Name[];
const SETTINGS = 'settings.json';
const SOUND = /^takes\/([\w-]{1,60})\.wav$/u;

type Rows = { readonly [N in Name]: readonly z.infer<(typeof TABLES)[N]['row']>[] };

export interface Archive {
  readonly rows: Rows;
  /** Settings as JSON; null where there are none. */
  readonly settings: string | null;
  /** The sound of takes by their id, as WAV files. */
  readonly sounds: ReadonlyMap<string, Uint8Array>;
}

/** The rows that are kept, and how many of each table are too damaged to be put into an archive. */
async function rowsOf(
  db: Db,
): Promise<{ readonly rows: Rows; readonly damaged: Readonly<Record<string, number>> }> {
  const live = async (name: Exclude<Name, 'card'>) =>
    readRows(db, name, sql`deleted_at is null`, sql`id`);
  const read = {
    ...{ chart: await live('chart'), lick: await live('lick') },
    stint: await live('stint'),
  };
  const card = await readRows(db, 'card', sql`1`, sql`id`);
  const all = { ...read, card };
  const sound = NAMES.map((name) => {
    const { row } = TABLES[name];
    return [name, all[name].flatMap((one) => row.safeParse(one).data ?? [])] as const;
  });
  const damaged = sound.flatMap(([name, rows]) => {
    const lost = all[name].length - rows.length;
    return lost > 0 ? [[TABLES[name].words, lost] as const] : [];
  });
  return {
    rows: Object.fromEntries(sound) as unknown as Rows,
    damaged: Object.fromEntries(damaged),
  };
}

const pretty = (value: unknown): Uint8Array => strToU8(`${JSON.stringify(value, null, 1)}\n`);

/** Sounds hardly shrink: they are put in as they are. */
const AS_IS = { level: 0 } as const;

/** Everything as the bytes of a zip; the sounds are those in the data folder. */
export async function writeArchive(db: Db, folder: string, made: string): Promise<Uint8Array> {
  const { rows, damaged } = await rowsOf(db);
  const [setting] = await readRows(db, 'setting', sql`name = 'player'`);
  const files: Zippable = {};
  for (const name of NAMES) files[TABLES[name].file] = pretty(rows[name]);
  if (setting) files[SETTINGS] = strToU8(String(setting['value']));
  for (const chart of rows.chart) Object.assign(files, chartFiles(chart));
  for (const lick of rows.lick) {
    Object.assign(files, lickFiles(lick));
    const sound = lick.sound === null ? null : await readSound(folder, lick.id);
    if (sound) files[`takes/${lick.id}.wav`] = [sound, AS_IS];
  }
  const counts = Object.fromEntries(NAMES.map((name) => [TABLES[name].words, rows[name].length]));
  files['manifest.json'] = pretty({
    ...{ format: FORMAT, version: VERSION, made, counts },
    // What no longer is what it must be is left out, and said.
    ...(Object.keys(damaged).length > 0 ? { damaged } : {}),
    files: Object.fromEntries(NAMES.map((name) => [TABLES[name].file, TABLES[name].words])),
    note: 'The JSON files and the takes’ sound are what is read back; MusicXML and MIDI are for other programs.',
  });
  // The same content gives the same bytes.
  return zipSync(files, { mtime: new Date('1980-01-02T00:00:00Z') });
}

export type ArchiveRead =
  | { readonly ok: true; readonly archive: Archive }
  | { readonly ok: false; readonly message: string };

const refuse = (message: string): ArchiveRead => ({ ok: false, message });

/** Reads an archive's bytes, or says why not. */
export function readArchive(bytes: Uint8Array): ArchiveRead {
  const wanted = new Set<string>([
    ...NAMES.map((name) => TABLES[name].file),
    SETTINGS,
    'manifest.json',
  ]);
  let unpacked = 0;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        unpacked += originalSize;
        return (wanted.has(name) || SOUND.test(name)) && unpacked <= UNPACKED_LIMIT;
      },
    });
  } catch {
    return refuse('This is not a zip file that can be read.');
  }
  const json = (name: string): unknown => {
    const file = files[name];
    if (!file) return undefined;
    try {
      return JSON.parse(strFromU8(file));
    } catch {
      return undefined;
    }
  };
  const manifest = z
    .object({ format: z.literal(FORMAT), version: z.int() })
    .safeParse(json('manifest.json'));
  if (!manifest.success) return refuse('This zip is no archive of Corvel: it has no manifest.');
  if (manifest.data.version > VERSION)
    return refuse('This archive is of a newer Corvel; bring this one up to date first.');
  const rows: Partial<Record<Name, unknown>> = {};
  for (const name of NAMES) {
    const { file, row } = TABLES[name];
    const read = z.array(row).max(200_000).safeParse(json(file));
    if (!read.success)
      return refuse(`${file} in this archive cannot be read; nothing was changed.`);
    const ids = new Set(read.data.map((one) => one.id));
    if (ids.size < read.data.length)
      return refuse(`${file} in this archive names one thing twice; nothing was changed.`);
    rows[name] = read.data;
  }
  const settings = settingsSchema.safeParse(json(SETTINGS));
  const kept = files[SETTINGS];
  return {
    ok: true,
    archive: {
      rows: rows as Rows,
      settings: settings.success && kept ? strFromU8(kept) : null,
      sounds: new Map(
        Object.entries(files).flatMap(([name, bytes]) => {
          const of = SOUND.exec(name)?.[1];
          return of === undefined ? [] : [[of, bytes] as const];
        }),
      ),
    },
  };
}

export const MODES = ['merge', 'replace'] as const;
export type Mode = (typeof MODES)[number];

/** What an archive would change, or has changed, of one kind of thing. */
export interface Change {
  readonly what: string;
  readonly added: number;
  readonly changed: number;
  readonly same: number;
  readonly removed: number;
}

/** Which of two versions of a thing stays when both are kept together: the later. */
function isLater(
  name: Name,
  theirs: Record<string, unknown>,
  ours: Record<string, unknown>,
): boolean {
  if (name === 'card') return Number(theirs['seen']) > Number(ours['seen']);
  if (name === 'stint') return false;
  return String(theirs['updated_at']) > String(ours['updated_at']);
}

interface Work {
  readonly change: Change;
  readonly put: readonly Record<string, unknown>[];
  readonly gone: readonly string[];
}

/**
 * Rows as they are kept beside ours: the licks a book begins with are the same in every book, under whatever
 * ids, as long as nobody has changed them.
 */
function besideOurs(name: Name, archive: Archive, present: Rows, mode: Mode) {
  const rows = archive.rows[name] as readonly (Record<string, unknown> & { readonly id: string })[];
  if (name !== 'lick' || mode === 'replace') return rows;
  const said = ({ title, tags, chart, notes }: Record<string, unknown>) =>
    JSON.stringify([title, tags, chart, notes]);
  const starters = present.lick.filter(({ source }) => source === STARTER);
  const ours = new Map(starters.map((row) => [said(row), row.id]));
  const own = new Set(present.lick.map((row) => row.id));
  return rows.map((row) => {
    const starts = row['source'] === STARTER && !own.has(row.id);
    const known = starts ? ours.get(said(row)) : undefined;
    return known === undefined ? row : { ...row, id: known };
  });
}

function workFor(name: Name, archive: Archive, present: Rows, mode: Mode): Work {
  const ours = new Map(present[name].map((row) => [row.id, row as Record<string, unknown>]));
  const put: Record<string, unknown>[] = [];
  let [added, changed, same] = [0, 0, 0];
  for (const row of besideOurs(name, archive, present, mode)) {
    const own = ours.get(row.id);
    if (!own) added += 1;
    else if (JSON.stringify(own) === JSON.stringify(row)) {
      same += 1;
      continue;
    } else if (mode === 'replace' || isLater(name, row, own)) changed += 1;
    else {
      same += 1;
      continue;
    }
    put.push(row);
  }
  const theirs = new Set(archive.rows[name].map((row) => row.id));
  const gone = mode === 'replace' ? [...ours.keys()].filter((one) => !theirs.has(one)) : [];
  const change = { what: TABLES[name].words, added, changed, same, removed: gone.length };
  return { change, put, gone };
}

/** What taking an archive would change. */
export async function previewArchive(
  db: Db,
  archive: Archive,
  mode: Mode,
): Promise<readonly Change[]> {
  const { rows: present } = await rowsOf(db);
  return NAMES.map((name) => workFor(name, archive, present, mode).change);
}

const TOGETHER = 200;

/** Takes an archive, all of it or nothing; what it changed. */
export async function takeArchive(
  db: Db,
  folder: string,
  archive: Archive,
  mode: Mode,
  now: string,
): Promise<readonly Change[]> {
  // A take's sound never changes: what is there stays, and what belongs to no take is not kept.
  const present = new Set(await soundsIn(folder));
  const written: string[] = [];
  try {
    // Sounds first: a row that is there names a file that is there, whenever it ends.
    for (const { id: of, sound } of archive.rows.lick) {
      const bytes = sound === null || present.has(of) ? undefined : archive.sounds.get(of);
      if (!bytes || !isWav(bytes)) continue;
      written.push(of);
      await putSound(folder, of, bytes);
    }
    return await takeRows(db, archive, mode, now);
  } catch (error) {
    for (const of of written) await removeSound(folder, of);
    throw error;
  }
}

const takeRows = (db: Db, archive: Archive, mode: Mode, now: string): Promise<readonly Change[]> =>
  commitTogether(db, async (transaction) => {
    const { rows: present } = await rowsOf(transaction);
    const changes: Change[] = [];
    for (const name of NAMES) {
      const { change, put, gone } = workFor(name, archive, present, mode);
      const leaving = new Set(gone);
      changes.push(change);
      const ids = [...put.map((row) => String(row['id'])), ...gone];
      for (let from = 0; from < ids.length; from += TOGETHER) {
        const part = ids.slice(from, from + TOGETHER);
        // What goes is put away as deleted things are; what comes takes the place of what was.
        const removed = part.filter((one) => leaving.has(one));
        if (name !== 'card' && removed.length > 0)
          await transaction
            .updateTable(name)
            .set({ deleted_at: now })
            .where('id', 'in', removed)
            .execute();
        if (name === 'card' && removed.length > 0)
          await transaction.deleteFrom(name).where('id', 'in', removed).execute();
      }
      const revisions = await revisionsOf(transaction, name);
      for (const row of put) {
        const known = revisions.get(String(row['id']));
        const written = {
          ...row,
          ...(name === 'card' ? {} : { deleted_at: null }),
          // A page that is open on what was replaced must not save over it.
          ...(known === undefined ? {} : { revision: known + 1 }),
        };
        await transaction
          .insertInto(name)
          .values(written as never)
          .onConflict((conflict) => conflict.column('id').doUpdateSet(written as never))
          .execute();
      }
    }
    const { settings } = archive;
    if (settings !== null) {
      const row = { name: 'player', value: settings };
      const known = await transaction
        .selectFrom('setting')
        .select('revision')
        .where('name', '=', 'player')
        .executeTakeFirst();
      if (!known || mode === 'replace')
        await transaction
          .insertInto('setting')
          .values({ ...row, revision: (known?.revision ?? 0) + 1 })
          .onConflict((conflict) =>
            conflict
              .column('name')
              .doUpdateSet({ value: settings, revision: (known?.revision ?? 0) + 1 }),
          )
          .execute();
    }
    return changes;
  });

/** The revision of each row of a table that has them, of what is put away too. */
async function revisionsOf(db: Db, name: Name): Promise<ReadonlyMap<string, number>> {
  if (name === 'card') return new Map();
  const rows = await db
    .selectFrom(name)
    .select([bytesOf('id').as('id'), sql<number>`cast(revision as integer)`.as('revision')])
    .execute();
  return new Map(rows.map(({ id, revision }) => [decode(id)?.text ?? '', revision]));
}

/** Everything that would change, as a sentence. */
export function changeSays(changes: readonly Change[]): string {
  const parts = changes.flatMap(({ what, added, changed, removed }) => {
    const words = [
      added > 0 ? `${added} added` : '',
      changed > 0 ? `${changed} changed` : '',
      removed > 0 ? `${removed} put away` : '',
    ].filter((one) => one !== '');
    return words.length === 0 ? [] : [`${what}: ${words.join(', ')}`];
  });
  return parts.length === 0 ? 'Nothing is new in this archive.' : `${parts.join('; ')}.`;
}

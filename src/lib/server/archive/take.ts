/**
 * Taking an archive in: beside what is here, or in its place; all of it or nothing. What is to change is
 * worked out before, so that others wait for the change only.
 */
import { sql } from 'kysely';
import { z } from 'zod';
import { commitTogether } from '../commits';
import type { Db } from '../database';
import { rest } from '../desk/rest';
import { readSettings } from '$lib/settings/settings';
import { STARTER } from '../licks';
import { log } from '../log';
import { findSettings, PLAYER, revisionOf, writeRow } from '../settings';
import { isWav, putSound, removeSound, soundsIn } from '../sounds';
import { readRows } from '../texts';
import { type Archive, type Name, NAMES, type Row, TABLES } from './rows';
import {
  type Changes,
  putAway,
  putInPlace,
  remember,
  savedMeanwhile,
  type Standing,
  standing,
  standsAfter,
  stillWait,
  wait,
} from './waiting';
import { rowsOf } from './write';

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
function isLater(name: Name, theirs: Row, ours: Row): boolean {
  if (name === 'card') return Number(theirs['seen']) > Number(ours['seen']);
  if (name === 'stint') return false;
  return String(theirs['updated_at']) > String(ours['updated_at']);
}

interface Work extends Changes {
  readonly change: Change;
}

/** What taking an archive did, so that it can be taken back: ids, each with how its row stood afterwards. */
const takenSchema = z.object({
  at: z.string(),
  /** The backup that was made before. */
  backup: z.string(),
  /** The revision of the settings it brought; null where it brought none. */
  settings: z.nullable(z.int()),
  tables: z.record(
    z.string(),
    z.object({
      added: z.record(z.string(), z.int()),
      changed: z.record(z.string(), z.int()),
      gone: z.record(z.string(), z.int()),
    }),
  ),
});
type TakenIn = z.infer<typeof takenSchema>;

/** Under which name the settings keep it. */
const TAKEN_IN = 'import';

/** The archive that was taken in last and can be taken back; null where there is none. */
export async function takenIn(db: Db): Promise<TakenIn | null> {
  const [row] = await readRows(db, 'setting', sql`name = ${TAKEN_IN}`);
  try {
    return takenSchema.parse(JSON.parse(String(row?.['value'])));
  } catch {
    return null;
  }
}

/** What the licks a book begins with were called before they were named by what they do. */
const FORMER = /^(?:Up|Down) round the |, (?:first|second|third|fourth|fifth) zone$/u;

/**
 * Rows as they are kept beside ours: the licks a book begins with are the same in every book, under whatever
 * ids, as long as nobody has changed them.
 */
function besideOurs(name: Name, rows: readonly Row[], present: readonly Row[], mode: Mode) {
  if (name !== 'lick' || mode === 'replace') return rows;
  const said = ({ tags, chart, notes }: Row) => JSON.stringify([tags, chart, notes]);
  const starters = present.filter(({ source }) => source === STARTER);
  const ours = new Map(starters.map((row) => [said(row), row]));
  const own = new Set(present.map((row) => row.id));
  return rows.map((row) => {
    const starts = row['source'] === STARTER && !own.has(row.id);
    const known = starts ? ours.get(said(row)) : undefined;
    const title = String(row['title']);
    const named = known && (title === known['title'] || FORMER.test(title));
    return known && named ? { ...row, id: known.id } : row;
  });
}

function workFor(name: Name, archive: Archive, present: readonly Row[], mode: Mode): Work {
  const ours = new Map(present.map((row) => [row.id, row]));
  const put: Row[] = [];
  let [added, changed, same] = [0, 0, 0];
  for (const row of besideOurs(name, archive.rows[name], present, mode)) {
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
  const changes: Change[] = [];
  for (const name of NAMES)
    changes.push(workFor(name, archive, await rowsOf(db, name), mode).change);
  return changes;
}

export interface Taking {
  readonly mode: Mode;
  readonly now: string;
  /** The backup that was made before, by its name; what is replaced can be brought back from there. */
  readonly backup: string;
}

/** Takes an archive, all of it or nothing; what it changed. */
export async function takeArchive(
  db: Db,
  folder: string,
  archive: Archive,
  { mode, now, backup }: Taking,
): Promise<readonly Change[]> {
  // A take's sound never changes: what is there stays, and what belongs to no take is not kept.
  const present = new Set(await soundsIn(folder));
  const written: string[] = [];
  try {
    // Sounds first: a row that is there names a file that is there, whenever it ends.
    for (const { id: of, sound } of archive.rows.lick) {
      if (sound === null || present.has(of) || !archive.sounds.has(of)) continue;
      const bytes = await archive.soundOf(of);
      if (!isWav(bytes)) continue;
      written.push(of);
      await putSound(folder, of, bytes);
      await rest();
    }
    return await takeRows(db, archive, { mode, now, backup });
  } catch (error) {
    for (const of of written) await removeSound(folder, of);
    throw error;
  }
}

async function takeRows(
  db: Db,
  archive: Archive,
  { mode, now, backup }: Taking,
): Promise<readonly Change[]> {
  const works: (Work & { name: Name; before: Standing; stands: TakenIn['tables'][string] })[] = [];
  for (const name of NAMES) {
    const before = await remember(db, name);
    const work = workFor(name, archive, await rowsOf(db, name), mode);
    await wait(db, name, work.put);
    works.push({ ...work, name, before, stands: standsAfter(name, work, before) });
  }
  await commitTogether(db, async (transaction) => {
    const tables: TakenIn['tables'] = {};
    for (const { name, put, gone, before, stands } of works) {
      await stillWait(transaction, name, put);
      // Saved while this was worked out: no backup has it, so it stays, whatever comes in.
      const saved = await savedMeanwhile(transaction, name, before);
      const left = [...put.map(({ id }) => id), ...gone].filter((id) => saved.has(id));
      const staying = new Set(left);
      const going = gone.filter((id) => !staying.has(id));
      await putInPlace(transaction, name, left);
      await putAway(transaction, name, going, now);
      const rows = () => put.filter(({ id }) => !staying.has(id));
      tables[name] =
        left.length === 0
          ? stands
          : standsAfter(name, { put: rows(), gone: going }, new Map([...before, ...saved]));
    }
    const settings = await takeSettings(transaction, archive.settings, mode);
    const value = JSON.stringify({ at: now, backup, settings, tables } satisfies TakenIn);
    await replaceRow(transaction, TAKEN_IN, value);
  });
  return works.map(({ change }) => change);
}

/**
 * Takes back the archive that was taken in last: what it put in the place of other things is as it was before,
 * from the backup; what it brought is put away. What was changed since stays.
 */
export async function takeBack(
  db: Db,
  { at: taken, settings, tables }: TakenIn,
  backup: Db,
  now: string,
): Promise<readonly Change[]> {
  const changes: Change[] = [];
  const works: (Changes & { readonly name: Name })[] = [];
  for (const name of NAMES) {
    const { added = {}, changed = {}, gone = {} } = tables[name] ?? {};
    const at = await standing(db, name);
    const untouched = (ids: Readonly<Record<string, number>>) =>
      Object.keys(ids).filter((id) => (at.get(id) ?? 0) === ids[id]);
    const wanted = new Set([...untouched(changed), ...untouched(gone)]);
    const put = (await rowsOf(backup, name)).filter(({ id }) => wanted.has(id));
    const back = new Set(put.map(({ id }) => id));
    // What was put away before the archive brought it back is put away again.
    const away = [...untouched(added), ...untouched(changed).filter((id) => !back.has(id))];
    await wait(db, name, put);
    works.push({ name, put, gone: away });
    const all = [added, changed, gone].reduce((sum, ids) => sum + Object.keys(ids).length, 0);
    changes.push({
      what: TABLES[name].words,
      added: 0,
      changed: put.length,
      removed: away.length,
      same: all - put.length - away.length,
    });
  }
  await commitTogether(db, async (transaction) => {
    for (const { name, put, gone } of works) {
      await stillWait(transaction, name, put);
      await putInPlace(transaction, name, []);
      await putAway(transaction, name, gone, now);
    }
    const [player] = await readRows(backup, 'setting', sql`name = ${PLAYER}`);
    if (player && settings !== null && (await revisionOf(transaction, PLAYER)) === settings)
      await replaceRow(transaction, PLAYER, String(player['value']));
    await transaction.deleteFrom('setting').where('name', '=', TAKEN_IN).execute();
  });
  log('info', 'archive taken back', { taken });
  return changes;
}

/** Puts a row of settings in the place of what is there; its new revision. */
const replaceRow = async (db: Db, name: string, value: string): Promise<number> =>
  writeRow(db, name, value, await revisionOf(db, name));

async function takeSettings(db: Db, value: string | null, mode: Mode): Promise<number | null> {
  if (value === null) return null;
  const theirs = mode === 'replace' || (await revisionOf(db, PLAYER)) === 0;
  if (theirs) return replaceRow(db, PLAYER, value);
  // Patterns are made as charts are: those that are new come along, those that are here stay.
  const { settings: mine } = await findSettings(db);
  const patterns = { ...readSettings(value).patterns, ...mine.patterns };
  if (Object.keys(patterns).length === Object.keys(mine.patterns).length) return null;
  return replaceRow(db, PLAYER, JSON.stringify({ ...mine, patterns }));
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

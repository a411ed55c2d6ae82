import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { DEFAULT_SETTINGS } from '$lib/settings/settings';
import { readArchive } from './read';
import type { Archive } from './rows';
import { changeSays, type Mode, previewArchive, takeArchive, takenIn } from './take';
import { writeArchive } from './write';
import { answerCard } from '../cards';
import { type DeskJob, type Told, work } from '../desk/jobs';
import { createChart, deleteChart, findChart, listCharts, saveChart } from '../charts';
import { DATABASE_FILE, openDatabase, type OpenDatabase } from '../database';
import { seedDemo } from '../demo';
import { beginLickBook, createLick, listLicks, listTakes, markSound, saveLick } from '../licks';
import { findSettings, saveSettings } from '../settings';
import { connect } from '../sqlite';
import { putSound, readSound, soundsIn } from '../sounds';
import { listStints } from '../stints';

const NOW = '2026-06-15T18:00:00.000Z';
const folders: string[] = [];
const opened: OpenDatabase[] = [];

/** The data folder of each database. */
const folderOf = new Map<OpenDatabase['db'], string>();
async function written(of: OpenDatabase['db']): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  for await (const piece of writeArchive(of, folderOf.get(of) ?? '', NOW)) pieces.push(piece);
  return new Uint8Array(Buffer.concat(pieces));
}
const taken = (into: OpenDatabase['db'], archive: Archive, mode: Mode) =>
  takeArchive(into, folderOf.get(into) ?? '', archive, { mode, now: NOW, backup: 'none' });

async function fresh(): Promise<OpenDatabase['db']> {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-archive-'));
  folders.push(folder);
  const open = await openDatabase(folder);
  opened.push(open);
  folderOf.set(open.db, folder);
  return open.db;
}
let db: OpenDatabase['db'];

beforeEach(async () => {
  db = await fresh();
  await seedDemo(db);
  await beginLickBook(db);
  await answerCard(db, { id: 'find-degree general 5-8', right: true }, Date.parse(NOW));
  await saveSettings(db, { ...DEFAULT_SETTINGS, boxNames: 'letter' }, 0);
});
afterEach(async () => {
  for (const { db: one } of opened.splice(0)) await one.destroy();
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true });
});

/** Reads bytes as the file they came in. */
function readBytes(bytes: Uint8Array) {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-archive-'));
  folders.push(folder);
  writeFileSync(join(folder, 'a.zip'), bytes);
  return readArchive(join(folder, 'a.zip'));
}

async function archiveOf(bytes: Uint8Array): Promise<Archive> {
  const read = await readBytes(bytes);
  if (!read.ok) throw new Error(read.message);
  return read.archive;
}

describe('the whole book', () => {
  test('comes back byte for byte, into an empty book and in place of another', async () => {
    const bytes = await written(db);
    for (const before of ['empty', 'other']) {
      const other = await fresh();
      if (before === 'other') await createChart(other, 'title: Elsewhere\n| C |');
      await taken(other, await archiveOf(bytes), 'replace');
      expect(Buffer.compare(await written(other), bytes)).toBe(0);
    }
  });

  test('holds a manifest and every chart as MusicXML', async () => {
    const files = unzipSync(await written(db));
    const manifest = JSON.parse(strFromU8(files['manifest.json'] ?? new Uint8Array())) as object;
    expect(manifest).toMatchObject({ format: 'corvel-archive', counts: { charts: 6 } });
    const scores = Object.keys(files).filter((name) => name.endsWith('.musicxml'));
    expect(scores).toHaveLength(6);
    expect(scores.join()).toContain('Ferry at Half Past');
    const played = Object.keys(files).filter((name) => name.endsWith('.mid'));
    expect(played.length).toBeGreaterThanOrEqual(60);
    for (const name of played)
      expect(strFromU8(files[name] ?? new Uint8Array(), true)).toMatch(/^MThd/u);
  });

  test('holds a take with its sound, and brings both back', async () => {
    const [chart] = await listCharts(db);
    const take = {
      title: 'A take',
      tags: [],
      source: 'a take',
      chart: '| Dm7 | G7 |',
      notes: [{ beat: 0, beats: 1, string: 3, fret: 7, techniques: [] }],
    };
    const id = await createLick(db, take, chart?.id ?? '');
    const sound = strToU8('RIFF....WAVEfmt and what was played');
    await putSound(folderOf.get(db) ?? '', id, sound);
    await markSound(db, id, sound.length);
    const bytes = await written(db);
    const files = Object.keys(unzipSync(bytes));
    expect(files).toContain(`takes/${id}.wav`);
    expect(files).toContain(`midi/A take ${id}.mid`);
    const other = await fresh();
    await taken(other, await archiveOf(bytes), 'merge');
    expect(await listTakes(other, chart?.id ?? '')).toMatchObject([{ id, sound: sound.length }]);
    expect(await readSound(folderOf.get(other) ?? '', id)).toEqual(sound);
    await taken(other, await archiveOf(bytes), 'replace');
    expect(Buffer.compare(await written(other), bytes)).toBe(0);
    // A sound that belongs to no take is not let in.
    const stray = unzipSync(bytes);
    stray['takes/elsewhere.wav'] = sound;
    const third = await fresh();
    await taken(third, await archiveOf(zipSync(stray)), 'merge');
    expect(await soundsIn(folderOf.get(third) ?? '')).toEqual([id]);
    // One that names a file outside is no archive.
    stray['takes/../../outside.wav'] = sound;
    expect(await readBytes(zipSync(stray))).toMatchObject({ ok: false });
  });

  test('one of before there was one rule of landing marks what was counted', async () => {
    const files = unzipSync(await written(db));
    const stints = JSON.parse(strFromU8(files['log.json'] ?? new Uint8Array())) as object[];
    files['log.json'] = strToU8(
      JSON.stringify(stints.map((stint) => ({ ...stint, earlier_rule: undefined }))),
    );
    const other = await fresh();
    await taken(other, await archiveOf(zipSync(files)), 'replace');
    const found = await listStints(other);
    expect(found.length).toBeGreaterThan(5);
    for (const { asked, earlierRule = false } of found) expect(earlierRule).toBe(asked !== null);
  });

  test('merged, it adds what is missing and keeps the later of two', async () => {
    const bytes = await written(db);
    const [first, second] = await listCharts(db);
    if (!first || !second) throw new Error('no charts');
    const other = await fresh();
    const mine = await createChart(other, 'title: Elsewhere\n| C |');
    const archive = await archiveOf(bytes);
    expect(changeSays(await previewArchive(other, archive, 'merge'))).toContain('charts: 6 added');
    expect(await listCharts(other)).toHaveLength(1);
    await taken(other, archive, 'merge');
    expect(await listCharts(other)).toHaveLength(7);
    expect(await findChart(other, mine)).not.toBeNull();
    // Changed here since: it stays as it is.
    await other
      .updateTable('chart')
      .set({ text: 'title: Later\n| C |', updated_at: '2099-01-01T00:00:00.000Z' })
      .where('id', '=', first.id)
      .execute();
    // Changed there since: it is taken.
    await other
      .updateTable('chart')
      .set({ text: 'title: Older\n| C |', updated_at: '2001-01-01T00:00:00.000Z' })
      .where('id', '=', second.id)
      .execute();
    await taken(other, archive, 'merge');
    expect((await findChart(other, first.id))?.text).toContain('Later');
    expect((await findChart(other, second.id))?.text).not.toContain('Older');
    expect(await listStints(other)).toHaveLength((await listStints(db)).length);
    expect(changeSays(await previewArchive(other, archive, 'merge'))).toMatch(/^Nothing is new/u);
  });

  test('what is replaced goes on by its revision, so that an open page cannot save over it', async () => {
    const bytes = await written(db);
    const [first] = await listCharts(db);
    const id = first?.id ?? '';
    const before = await findChart(db, id);
    for (const revision of [1, 2])
      await saveChart(db, id, { revision, text: 'title: Later\n| C |', plan: '{}' });
    await taken(db, await archiveOf(bytes), 'replace');
    const after = await findChart(db, id);
    expect(after).toMatchObject({ text: before?.text, revision: 4 });
    expect(await saveChart(db, id, { revision: 3, text: '| G |', plan: '{}' })).toMatchObject({
      kind: 'conflict',
    });
    // One that was put away and comes back goes on as well.
    await deleteChart(db, id);
    await taken(db, await archiveOf(bytes), 'replace');
    expect((await findChart(db, id))?.revision).toBe(5);
  });

  test('merged into a fresh book, the licks a book begins with are not doubled', async () => {
    const bytes = await written(db);
    const other = await fresh();
    await beginLickBook(other);
    const before = (await listLicks(other)).length;
    await taken(other, await archiveOf(bytes), 'merge');
    expect(await listLicks(other)).toHaveLength(before);
    // One that was changed is not the same any more: it comes beside the one that is there.
    const [starter] = await listLicks(db);
    if (!starter) throw new Error('no lick');
    const { id, revision, ...content } = starter;
    await saveLick(db, id, revision, { ...content, notes: starter.notes.slice(1) });
    const third = await fresh();
    await beginLickBook(third);
    await taken(third, await archiveOf(await written(db)), 'merge');
    const titled = (await listLicks(third)).filter(({ title }) => title === starter.title);
    expect(titled.map(({ notes }) => notes.length).sort((a, b) => a - b)).toEqual([
      ...[starter.notes.length - 1, starter.notes.length],
    ]);
    // One of before they were named anew is the same; one the player has named is not.
    const renamed = async (title: string, at: number) => {
      await saveLick(db, id, at, { ...content, title });
      const book = await fresh();
      await beginLickBook(book);
      await taken(book, await archiveOf(await written(db)), 'merge');
      return (await listLicks(book)).length - before;
    };
    expect(await renamed('Up round the root, major seventh', revision + 1)).toBe(0);
    expect(await renamed('I to IV, second zone', revision + 2)).toBe(0);
    expect(await renamed('The one for the bridge', revision + 3)).toBe(1);
    await saveLick(db, id, revision + 4, content);
    // One's own are added, of the same name too.
    const own = { title: 'Mine', tags: [], source: 'mine', chart: '| C |', notes: [] };
    await createLick(db, own);
    await createLick(other, own);
    await taken(other, await archiveOf(await written(db)), 'merge');
    expect(await listLicks(other)).toHaveLength(before + 2);
  });

  test.each([
    ['charts.json', { updated_at: 'zzz' }],
    ['charts.json', { opened_at: 'yesterday' }],
    ['licks.json', { created_at: '' }],
    ['log.json', { at: 'garbage' }],
    ['log.json', { extent: 'for ever' }],
    ['log.json', { tempo: -1 }],
    ['log.json', { minutes: 1e9 }],
    ['cards.json', { state: '{}' }],
    ['cards.json', { state: 'no JSON' }],
  ])('%s with %j is refused whole, and nothing is changed', async (file, changed) => {
    const files = unzipSync(await written(db));
    const rows = JSON.parse(strFromU8(files[file] ?? new Uint8Array())) as object[];
    files[file] = strToU8(JSON.stringify([{ ...rows[0], ...changed }, ...rows.slice(1)]));
    expect(await readBytes(zipSync(files))).toMatchObject({
      ok: false,
      message: `${file} in this archive cannot be read; nothing was changed.`,
    });
    files[file] = strToU8(JSON.stringify([rows[0], ...rows]));
    expect(await readBytes(zipSync(files))).toMatchObject({
      ok: false,
      message: `${file} in this archive names one thing twice; nothing was changed.`,
    });
  });

  test('patterns of an archive come beside those that are here, whose own stay as they are', async () => {
    const pattern = (text: string) => ({ text, tags: [] });
    const patterns = { Both: pattern('1 2'), Theirs: pattern('3 5') };
    const there = await fresh();
    await saveSettings(there, { ...DEFAULT_SETTINGS, boxNames: 'letter', patterns }, 0);
    const archive = await archiveOf(await written(there));
    const mine = { Both: pattern('5 3 1'), Mine: pattern('1') };
    const here = await fresh();
    await saveSettings(here, { ...DEFAULT_SETTINGS, boxNames: 'major', patterns: mine }, 0);
    await taken(here, archive, 'merge');
    const after = await findSettings(here);
    expect(after.settings.patterns).toEqual({ ...mine, Theirs: patterns.Theirs });
    expect(after.settings.boxNames).toBe('major');
    // Once more brings nothing, and a page that is open saves on the revision it knows.
    await taken(here, archive, 'merge');
    expect(await findSettings(here)).toEqual(after);
  });

  test('is taken back: what it replaced is as it was, what it brought is put away, later edits stay', async () => {
    const elsewhere = await fresh();
    await createChart(elsewhere, 'title: Elsewhere\n| C |');
    await saveSettings(elsewhere, { ...DEFAULT_SETTINGS, boxNames: 'major' }, 0);
    const bytes = await written(elsewhere);
    const before = await written(db);
    const folder = folderOf.get(db) ?? '';
    writeFileSync(join(folder, 'other.zip'), bytes);
    const places = { database: folder, folder };
    async function done(job: DeskJob): Promise<Told | null> {
      for await (const told of work(places, job)) return told;
      return null;
    }
    const file = join(folder, 'other.zip');
    const [first] = await listCharts(db);
    const id = first?.id ?? '';
    await done({ kind: 'take', file, mode: 'replace', now: NOW });
    const [theirs] = await listCharts(db);
    expect(await listCharts(db)).toHaveLength(1);
    expect(await listStints(db)).toEqual([]);
    expect((await findSettings(db)).settings.boxNames).toBe('major');
    const later = await createChart(db, 'title: Later\n| F |');
    expect(await done({ kind: 'back', now: NOW })).toMatchObject({ kind: 'taken' });
    expect((await listCharts(db)).map(({ title }) => title)).toContain('Later');
    expect(await findChart(db, theirs?.id ?? '')).toBeNull();
    expect(await findChart(db, id)).toMatchObject({ title: first?.title, revision: 2 });
    await deleteChart(db, later);
    expect(Buffer.compare(await written(db), before)).toBe(0);
    // It is taken back once.
    expect(await done({ kind: 'back', now: NOW })).toMatchObject({ kind: 'refused' });
    // What was changed after an archive was taken in stays as it was changed.
    await saveChart(db, id, { revision: 2, text: 'title: Mine\n| C |', plan: '{}' });
    writeFileSync(file, before);
    await done({ kind: 'take', file, mode: 'replace', now: '2026-06-15T19:00:00.000Z' });
    await saveChart(db, id, { revision: 4, text: 'title: Since\n| C |', plan: '{}' });
    await done({ kind: 'back', now: NOW });
    expect(await findChart(db, id)).toMatchObject({ title: 'Since' });
  });

  test.each<[Mode, string]>([
    ['merge', 'a chart that changes'],
    ['replace', 'a chart that changes'],
    ['replace', 'a chart that goes'],
  ])('%s: %s and is saved while that is worked out stays as it was saved', async (mode, which) => {
    const [first] = await listCharts(db);
    const id = first?.id ?? '';
    const theirs = { title: 'Theirs', updated_at: '2099-01-01T00:00:00.000Z' };
    await db.updateTable('chart').set(theirs).where('id', '=', id).execute();
    if (which.endsWith('goes')) await deleteChart(db, id);
    const archive = await archiveOf(await written(db));
    await db
      .updateTable('chart')
      .set({ title: 'Ours', updated_at: NOW, deleted_at: null })
      .execute();
    const beside = connect(join(folderOf.get(db) ?? '', DATABASE_FILE));
    let saved = false;
    const rows = new Proxy(archive.rows, {
      get: (from, name: keyof Archive['rows']) => {
        // The last table is worked out, and nothing is put in its place yet.
        if (name === 'card' && !saved) {
          saved = true;
          beside.exec(
            `update chart set title = 'Mine', revision = revision + 1 where id = '${id}'`,
          );
        }
        return from[name];
      },
    });
    await taken(db, { ...archive, rows }, mode);
    beside.close();
    expect(await findChart(db, id)).toMatchObject({ title: 'Mine', revision: 2 });
    // What is not said to be taken in is not taken back.
    const receipt = await takenIn(db);
    expect(Object.values(receipt?.tables['chart'] ?? {}).flatMap(Object.keys)).not.toContain(id);
  });

  test('replacing puts away what it has not, and takes what was deleted', async () => {
    const bytes = await written(db);
    const [first] = await listCharts(db);
    await deleteChart(db, first?.id ?? '');
    const mine = await createChart(db, 'title: Elsewhere\n| C |');
    const changes = await taken(db, await archiveOf(bytes), 'replace');
    expect(changeSays(changes)).toContain('charts: 1 added, 1 put away');
    expect(await findChart(db, mine)).toBeNull();
    expect(await listCharts(db)).toHaveLength(6);
  });

  test.each([
    ['not a zip', strToU8('PK and nothing more')],
    ['no manifest', zipSync({ 'charts.json': strToU8('[]') })],
    [
      'newer Corvel',
      zipSync({ 'manifest.json': strToU8('{"format":"corvel-archive","version":9}') }),
    ],
    [
      'charts.json in this archive cannot be read',
      zipSync({ 'manifest.json': strToU8('{"format":"corvel-archive","version":1}') }),
    ],
  ])('that is %s is refused in a sentence', async (words, bytes) => {
    const read = await readBytes(bytes);
    expect(read.ok ? '' : read.message).toContain(words);
  });
});

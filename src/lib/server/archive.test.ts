import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { DEFAULT_SETTINGS } from '$lib/settings/settings';
import { changeSays, previewArchive, readArchive, takeArchive, writeArchive } from './archive';
import { answerCard } from './cards';
import { createChart, deleteChart, findChart, listCharts } from './charts';
import { openDatabase, type OpenDatabase } from './database';
import { seedDemo } from './demo';
import { beginLickBook } from './licks';
import { saveSettings } from './settings';
import { listStints } from './stints';

const NOW = '2026-06-15T18:00:00.000Z';
const folders: string[] = [];
const opened: OpenDatabase[] = [];

async function fresh(): Promise<OpenDatabase['db']> {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-archive-'));
  folders.push(folder);
  const open = await openDatabase(folder);
  opened.push(open);
  return open.db;
}
let db: OpenDatabase['db'];

beforeEach(async () => {
  db = await fresh();
  await seedDemo(db);
  await beginLickBook(db);
  await answerCard(db, 'find-degree general 5-8', true, Date.parse(NOW));
  await saveSettings(db, { ...DEFAULT_SETTINGS, boxNames: 'letter' }, 0);
});
afterEach(async () => {
  for (const { db: one } of opened.splice(0)) await one.destroy();
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true, force: true });
});

function archiveOf(bytes: Uint8Array) {
  const read = readArchive(bytes);
  if (!read.ok) throw new Error(read.message);
  return read.archive;
}

describe('the whole book', () => {
  test('comes back byte for byte, into an empty book and in place of another', async () => {
    const bytes = await writeArchive(db, NOW);
    for (const before of ['empty', 'other']) {
      const other = await fresh();
      if (before === 'other') await createChart(other, 'title: Elsewhere\n| C |');
      await takeArchive(other, archiveOf(bytes), 'replace', NOW);
      expect(Buffer.compare(await writeArchive(other, NOW), bytes)).toBe(0);
    }
  });

  test('holds a manifest and every chart as MusicXML', async () => {
    const files = unzipSync(await writeArchive(db, NOW));
    const manifest = JSON.parse(strFromU8(files['manifest.json'] ?? new Uint8Array())) as object;
    expect(manifest).toMatchObject({ format: 'corvel-archive', counts: { charts: 6 } });
    const scores = Object.keys(files).filter((name) => name.endsWith('.musicxml'));
    expect(scores).toHaveLength(6);
    expect(scores.join()).toContain('Ferry at Half Past');
  });

  test('merged, it adds what is missing and keeps the later of two', async () => {
    const bytes = await writeArchive(db, NOW);
    const [first, second] = await listCharts(db);
    if (!first || !second) throw new Error('no charts');
    const other = await fresh();
    const mine = await createChart(other, 'title: Elsewhere\n| C |');
    const archive = archiveOf(bytes);
    expect(changeSays(await previewArchive(other, archive, 'merge'))).toContain('charts: 6 added');
    expect(await listCharts(other)).toHaveLength(1);
    await takeArchive(other, archive, 'merge', NOW);
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
    await takeArchive(other, archive, 'merge', NOW);
    expect((await findChart(other, first.id))?.text).toContain('Later');
    expect((await findChart(other, second.id))?.text).not.toContain('Older');
    expect(await listStints(other)).toHaveLength((await listStints(db)).length);
    expect(changeSays(await previewArchive(other, archive, 'merge'))).toMatch(/^Nothing is new/u);
  });

  test('replacing puts away what it has not, and takes what was deleted', async () => {
    const bytes = await writeArchive(db, NOW);
    const [first] = await listCharts(db);
    await deleteChart(db, first?.id ?? '');
    const mine = await createChart(db, 'title: Elsewhere\n| C |');
    const changes = await takeArchive(db, archiveOf(bytes), 'replace', NOW);
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
  ])('that is %s is refused in a sentence', (words, bytes) => {
    const read = readArchive(bytes);
    expect(read.ok ? '' : read.message).toContain(words);
  });
});

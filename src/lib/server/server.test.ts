import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { z } from 'zod';
import { readChart } from '$core/chart/form';
import { readHarmony } from '$core/harmony/reading';
import {
  createChart,
  deleteChart,
  duplicateChart,
  findChart,
  listCharts,
  markOpened,
  renameChart,
  restoreChart,
  saveChart,
  saveView,
} from './charts';
import { DEFAULT_SETTINGS } from '$lib/settings/settings';
import { DEFAULT_VIEW } from '$lib/study/view';
import { commitTogether } from './commits';
import { listBackups } from './backups';
import { backUpIfDue, work } from './desk/jobs';
import { openDatabase, type OpenDatabase } from './database';
import { DEMO_CHARTS, seedDemo } from './demo';
import { sql } from 'kysely';
import { MIGRATIONS } from './migrations';
import { findSettings, saveSettings } from './settings';
import { cookieOpens, tryPasscode } from './passcode';
import { BODY_LIMIT, readBody } from './request';

let folder: string;
let open: OpenDatabase;

/** Makes the backup that is due, as the server does, but here. */
const backUp = (open: OpenDatabase, now: Date) =>
  backUpIfDue(open, now, async (job) => {
    for await (const told of work({ database: folder, folder }, job)) return told;
    return null;
  });

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'corvel-test-'));
  open = await openDatabase(folder);
});

afterEach(() => {
  open.close();
  rmSync(folder, { recursive: true, force: true });
});

const TEXT = 'title: Two Spoons\nkey: Eb\ntempo: 90\n| Eb | Ab |';

describe('charts', () => {
  test('a chart is read back as it was made, its summary read from the text', async () => {
    const id = await createChart(open.db, TEXT);
    expect(await findChart(open.db, id)).toMatchObject({
      title: 'Two Spoons',
      key: 'Eb',
      tempo: 90,
      bars: 2,
      revision: 1,
      text: TEXT,
    });
  });

  test('a text that cannot be read is saved all the same', async () => {
    const id = await createChart(open.db, TEXT);
    await saveChart(open.db, id, { revision: 1, text: 'title: Two Spoons\n| Ebq', plan: '{}' });
    expect(await findChart(open.db, id)).toMatchObject({
      text: 'title: Two Spoons\n| Ebq',
      bars: null,
    });
  });

  test('a stale save changes nothing and answers what stands', async () => {
    const id = await createChart(open.db, TEXT);
    const first = await saveChart(open.db, id, { revision: 1, text: '| C |', plan: '{}' });
    const second = await saveChart(open.db, id, { revision: 1, text: '| F |', plan: '{}' });
    expect(first).toEqual({ kind: 'saved', revision: 2 });
    expect(second).toMatchObject({ kind: 'conflict', current: { text: '| C |', revision: 2 } });
    expect(await saveChart(open.db, 'none', { revision: 1, text: '', plan: '' })).toEqual({
      kind: 'missing',
    });
  });

  test('a chart made under an id of the page’s own is made once, however often it is sent', async () => {
    const made = { revision: 0, text: TEXT, plan: '{}' };
    expect(await saveChart(open.db, 'ofthepage', made)).toEqual({ kind: 'saved', revision: 1 });
    expect(await saveChart(open.db, 'ofthepage', made)).toEqual({ kind: 'saved', revision: 1 });
    expect(await listCharts(open.db)).toHaveLength(1);
    for (const other of [{ text: '| F |' }, { plan: '{"x":1}' }])
      expect(await saveChart(open.db, 'ofthepage', { ...made, ...other })).toMatchObject({
        kind: 'conflict',
        current: { text: TEXT, revision: 1 },
      });
    await deleteChart(open.db, 'ofthepage');
    expect(await saveChart(open.db, 'ofthepage', made)).toEqual({ kind: 'missing' });
  });

  test('delete hides a chart and restore brings it back whole', async () => {
    const id = await createChart(open.db, TEXT);
    expect(await deleteChart(open.db, id)).toBe(true);
    expect(await deleteChart(open.db, id)).toBe(false);
    expect(await findChart(open.db, id)).toBeNull();
    expect(await listCharts(open.db)).toEqual([]);
    expect(await restoreChart(open.db, id)).toBe(true);
    expect((await findChart(open.db, id))?.text).toBe(TEXT);
  });

  test('a deleted chart takes no edit, name, look or copy', async () => {
    const id = await createChart(open.db, TEXT);
    await deleteChart(open.db, id);
    const edit = { revision: 1, text: '| F |', plan: '{}' };
    expect(await saveChart(open.db, id, edit)).toEqual({ kind: 'missing' });
    expect(await renameChart(open.db, id, 'Other')).toEqual({ kind: 'missing' });
    expect(await duplicateChart(open.db, id)).toBeNull();
    expect([await markOpened(open.db, id), await saveView(open.db, id, DEFAULT_VIEW)]).toEqual([
      false,
      false,
    ]);
    expect(await restoreChart(open.db, id)).toBe(true);
    expect(await restoreChart(open.db, id)).toBe(false);
    expect(await findChart(open.db, id)).toMatchObject({ text: TEXT, revision: 1, view: '{}' });
  });

  test('rename and duplicate go through the text', async () => {
    const id = await createChart(open.db, TEXT);
    await renameChart(open.db, id, 'Three Spoons');
    const copy = await duplicateChart(open.db, id);
    expect((await findChart(open.db, id))?.text).toContain('title: Three Spoons\n');
    expect((await findChart(open.db, copy ?? ''))?.title).toBe('Three Spoons (copy)');
  });

  test('the last opened comes first', async () => {
    const first = await createChart(open.db, 'title: A\n| C |');
    const second = await createChart(open.db, 'title: B\n| C |');
    await markOpened(open.db, second);
    expect((await listCharts(open.db)).map(({ id }) => id)).toEqual([second, first]);
  });
});

describe('the database file', () => {
  test('keeps its charts across a restart', async () => {
    const id = await createChart(open.db, TEXT);
    open.close();
    open = await openDatabase(folder);
    expect((await findChart(open.db, id))?.text).toBe(TEXT);
  });

  test('is backed up before a new migration, from every earlier version', async () => {
    const names = Object.keys(MIGRATIONS);
    for (let version = 1; version <= names.length; version++) {
      const older = mkdtempSync(join(tmpdir(), 'corvel-test-'));
      const known = Object.fromEntries(Object.entries(MIGRATIONS).slice(0, version));
      const before = await openDatabase(older, new Date(), known);
      await before.db
        .insertInto('chart')
        .values({
          id: 'kept',
          title: 'T',
          text: '| C |',
          plan: '{}',
          key: null,
          tempo: null,
          bars: 1,
          created_at: 'x',
          updated_at: 'x',
          opened_at: null,
          deleted_at: null,
        })
        .execute();
      before.close();
      const next = { ...MIGRATIONS, '999-next': { up: async () => undefined } };
      const after = await openDatabase(older, new Date('2026-05-04T10:00:00Z'), next);
      expect((await findChart(after.db, 'kept'))?.text).toBe('| C |');
      expect(listBackups(older).filter((name) => name.includes('before'))).toHaveLength(1);
      after.close();
      rmSync(older, { recursive: true });
    }
  });

  test('keeps one backup a day and the last seven, and none of an empty book', async () => {
    await backUp(open, new Date('2026-03-01T09:00:00Z'));
    expect(listBackups(folder)).toEqual([]);
    await createChart(open.db, TEXT);
    for (let day = 1; day <= 9; day++) {
      await backUp(open, new Date(`2026-03-0${day}T12:00:00Z`));
      await backUp(open, new Date(`2026-03-0${day}T18:00:00Z`));
    }
    expect(listBackups(folder).map((name) => name.slice(6, 8))).toEqual([
      ...['09', '08', '07', '06', '05', '04', '03'],
    ]);
    expect(readdirSync(join(folder, 'backups'))).toHaveLength(7);
  });

  test('that is damaged is named as such and left as it is', async () => {
    const broken = mkdtempSync(join(tmpdir(), 'corvel-test-'));
    const file = join(broken, 'corvel.sqlite');
    writeFileSync(file, 'this is not a database, only words '.repeat(200));
    await expect(openDatabase(broken)).rejects.toMatchObject({ kind: 'damaged' });
    expect(existsSync(file)).toBe(true);
    expect(readdirSync(broken)).toContain('corvel.sqlite');
    rmSync(broken, { recursive: true });
  });
});

describe('settings', () => {
  test('begin as the defaults, keep what is saved, and refuse a stale save', async () => {
    expect(await findSettings(open.db)).toEqual({ settings: DEFAULT_SETTINGS, revision: 0 });
    const letters = { ...DEFAULT_SETTINGS, boxNames: 'letter' } as const;
    expect(await saveSettings(open.db, letters, 0)).toEqual({ kind: 'saved', revision: 1 });
    // Sent twice, kept once.
    expect(await saveSettings(open.db, letters, 0)).toEqual({ kind: 'saved', revision: 1 });
    expect(await findSettings(open.db)).toEqual({ settings: letters, revision: 1 });
    expect(await saveSettings(open.db, DEFAULT_SETTINGS, 0)).toEqual({
      kind: 'conflict',
      current: { settings: letters, revision: 1 },
    });
    expect(await findSettings(open.db)).toEqual({ settings: letters, revision: 1 });
  });
});

describe('writes that arrive together', () => {
  test('are each answered with their own result', async () => {
    const ids = await Promise.all(
      ['| C |', '| F |', '| G |'].map((text) => createChart(open.db, text)),
    );
    const saved = await Promise.all(
      ids.map((id, index) =>
        saveChart(open.db, id, { revision: 1 + (index % 2), text: '| Am |', plan: '{}' }),
      ),
    );
    expect(saved.map(({ kind }) => kind)).toEqual(['saved', 'conflict', 'saved']);
  });

  test('one that breaks fails alone, whether it throws or the database refuses it', async () => {
    const ids = [await createChart(open.db, '| C |'), await createChart(open.db, '| C |')];
    const [first = '', second = ''] = ids;
    const save = (id: string) => saveChart(open.db, id, { revision: 1, text: '| F |', plan: '{}' });
    const all = await Promise.allSettled([
      save(first),
      commitTogether(open.db, () => Promise.reject(new Error('broken'))),
      commitTogether(open.db, (transaction) =>
        sql`insert into nothing values (1)`.execute(transaction),
      ),
      save(second),
    ]);
    expect(all.map(({ status }) => status)).toEqual([
      ...['fulfilled', 'rejected', 'rejected', 'fulfilled'],
    ]);
    for (const id of ids) expect((await findChart(open.db, id))?.text).toBe('| F |');
    // What broke left nothing behind, and the next batch goes through.
    expect(await saveChart(open.db, first, { revision: 2, text: '| G |', plan: '{}' })).toEqual({
      kind: 'saved',
      revision: 3,
    });
  });
});

describe('the demo', () => {
  test('seeds six charts once, and leaves a used folder alone', async () => {
    await seedDemo(open.db);
    expect(await listCharts(open.db)).toHaveLength(6);
    for (const { id } of await listCharts(open.db)) await deleteChart(open.db, id);
    await seedDemo(open.db);
    expect(await listCharts(open.db)).toHaveLength(0);
  });

  test('covers a blues, a ii–V–I, a minor iiø–V–i, a chart without one key and a mode', () => {
    const readings = DEMO_CHARTS.map((text) => {
      const result = readChart(text);
      if (!result.ok) throw new Error(result.problems[0]?.message);
      return readHarmony(result.chart);
    });
    const kinds = readings.flatMap(({ cadences }) => cadences.map(({ kind }) => kind));
    expect(readings.filter(({ blues }) => blues)).toHaveLength(1);
    expect(kinds).toEqual(expect.arrayContaining(['ii-V-I major', 'ii-V-I minor']));
    expect(readings.filter(({ key }) => key.key === null)).toHaveLength(1);
    expect(readings.filter(({ key }) => key.key?.mode === 'dorian')).toHaveLength(1);
  });
});

describe('the passcode', () => {
  beforeEach(() => {
    process.env['CORVEL_PASSCODE'] = 'open sesame';
  });
  afterEach(() => {
    delete process.env['CORVEL_PASSCODE'];
  });

  test('opens with the right word and a cookie signed for it', () => {
    const attempt = tryPasscode('open sesame', '10.0.0.1');
    expect(attempt.kind === 'open' && cookieOpens(attempt.cookie)).toBe(true);
    expect(cookieOpens('forged')).toBe(false);
    expect(cookieOpens(undefined)).toBe(false);
  });

  test('makes an address wait after five wrong words, even with the right one', () => {
    for (let count = 0; count < 5; count++)
      expect(tryPasscode('x', '10.0.0.2', 1000).kind).toBe('wrong');
    expect(tryPasscode('open sesame', '10.0.0.2', 2000).kind).toBe('wait');
    expect(tryPasscode('open sesame', '10.0.0.2', 70_000).kind).toBe('open');
    // Many tries from elsewhere do not lock out who sits at this machine.
    for (let address = 0; address < 5; address++)
      for (let count = 0; count < 5; count++) tryPasscode('x', `10.0.1.${address}`, 90_000);
    expect(tryPasscode('open sesame', '10.0.2.1', 91_000).kind).toBe('wait');
    for (const local of ['127.0.0.1', '::1', '::ffff:127.0.0.1'])
      expect(tryPasscode('open sesame', local, 92_000).kind).toBe('open');
    expect(tryPasscode('open sesame', '127.evil', 93_000).kind).toBe('wait');
  });
});

describe('request bodies', () => {
  const schema = z.object({ chart: z.string() });
  const post = (body: string, type = 'application/json') =>
    readBody(
      new Request('http://localhost/', { method: 'POST', body, headers: { 'content-type': type } }),
      schema,
    );

  test.each([
    [400, 'invalid_json', '{"chart":', 'application/json'],
    [422, 'invalid_request', '{"chart":5}', 'application/json'],
    [422, 'invalid_request', '{"chart":"x"}', 'text/plain'],
    [413, 'too_large', `{"chart":"${'x'.repeat(BODY_LIMIT)}"}`, 'application/json'],
    [422, 'invalid_request', `${'['.repeat(100)}${']'.repeat(100)}`, 'application/json'],
  ])('a bad one is refused with %i %s', async (status, code, body, type) => {
    const read = await post(body, type);
    expect(read.ok ? null : read.refusal).toMatchObject({ status, code });
  });

  test('a good one is handed on, and a bad one names its path', async () => {
    expect(await post('{"chart":"| C |"}')).toEqual({ ok: true, value: { chart: '| C |' } });
    expect(await post('{}')).toMatchObject({ refusal: { path: 'chart' } });
  });
});

import { execFileSync, spawn } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { chartsIn, listBackups } from './backups';
import { DEFAULT_VIEW } from '$lib/study/view';
import { createChart, findChart, listCharts, saveChart, saveView } from './charts';
import { DATABASE_FILE, type Db, openDatabase, openToRead, type OpenDatabase } from './database';
import { StoreProblem } from './problems';
import type { Kysely } from 'kysely';
import { readArchive } from './archive/read';
import { writeArchive } from './archive/write';
import { backUpIfDue, work } from './desk/jobs';
import { answerCard, sitting } from './cards';
import { practiceCharts } from './session';
import {
  beginLickBook,
  createLick,
  deleteLick,
  listLicks,
  listTakes,
  markSound,
  restoreLick,
  saveLick,
  sweepSounds,
} from './licks';
import { stintSchema } from '$lib/log/messages';
import { findSettings, saveSettings } from './settings';
import { putSound, soundsIn } from './sounds';
import { addStints, listStints } from './stints';
import { lockFolder, unlockFolder } from './lock';
import { MIGRATIONS } from './migrations';
import { salvage } from './salvage';
import { closeStore, currentStore, restoreBackup, restoreReadable } from './store';

const LICK = {
  title: '',
  tags: ['cadence'],
  source: 'mine',
  chart: '| Dm7 | G7 |',
  notes: [{ beat: 0, beats: 1, string: 3, fret: 7, techniques: [] }],
};
const STINT = {
  at: '2026-06-15T18:00:00+02:00',
  exercise: 'targets',
  tempo: 96,
  zone: { low: 5, high: 8 },
  tempoFrom: 90,
  minutes: 4.5,
  asked: 20,
  landed: 18,
};
const TEXT = 'title: Nine Kettles\nkey: Eb\n| Eb | Ab |';

let folder: string;
let file: string;

/** Makes the backup that is due, as the server does, but here. */
const backUp = (open: OpenDatabase, now: Date) =>
  backUpIfDue(open, now, async (job) => {
    for await (const told of work({ database: folder, folder }, job)) return told;
    return null;
  });

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'corvel-store-'));
  file = join(folder, 'corvel.sqlite');
  process.env['CORVEL_DATA'] = folder;
});

afterEach(() => {
  closeStore();
  delete process.env['CORVEL_DATA'];
  rmSync(folder, { recursive: true, force: true });
});

const held = (): Database.Database => {
  const other = new Database(file);
  other.exec('begin immediate');
  return other;
};

/** What another process finds in the file: only what was committed. */
function textElsewhere(id: string): string {
  const other = new Database(file);
  const row = other.prepare('select text from chart where id = ?').get(id) as { text: string };
  other.close();
  return row.text;
}

describe('a lock held by another program', () => {
  test('is waited for, and what is acknowledged is committed', async () => {
    const open = await openDatabase(folder);
    const other = held();
    const waiting = createChart(open.db, TEXT);
    setTimeout(() => {
      other.exec('commit');
      other.close();
    }, 300);
    expect(textElsewhere(await waiting)).toBe(TEXT);
    open.close();
  });

  test('held too long is said so, and every later save is committed', async () => {
    const open = await openDatabase(folder);
    const id = await createChart(open.db, TEXT);
    const other = held();
    const save = saveChart(open.db, id, { revision: 1, text: '| F |', plan: '{}' });
    await expect(save).rejects.toMatchObject({ kind: 'busy' });
    other.exec('rollback');
    other.close();
    for (let revision = 1; revision <= 6; revision++) {
      const edit = { revision, text: `| C | x${revision}`, plan: '{}' };
      expect(await saveChart(open.db, id, edit)).toMatchObject({ kind: 'saved' });
      expect(textElsewhere(id)).toBe(edit.text);
    }
    open.close();
  });

  test('does not hold up who only reads', async () => {
    const open = await openDatabase(folder);
    const id = await createChart(open.db, TEXT);
    const other = held();
    const save = saveChart(open.db, id, { revision: 1, text: '| F |', plan: '{}' });
    expect((await findChart(open.db, id))?.text).toBe(TEXT);
    other.exec('commit');
    other.close();
    expect(await save).toMatchObject({ kind: 'saved' });
    open.close();
  });
});

describe('a migration that a kill parted from its record', () => {
  const names = Object.keys(MIGRATIONS);

  test.each(names)('%s and what came after it: the folder is mended', async (name) => {
    const open = await openDatabase(folder);
    const id = await createChart(open.db, TEXT);
    open.close();
    const other = new Database(file);
    // Tables as they are, but the record of these has not been written.
    other.prepare('delete from kysely_migration where name >= ?').run(name);
    other.close();
    const again = await openDatabase(folder);
    expect((await findChart(again.db, id))?.text).toBe(TEXT);
    again.close();
    const record = new Database(file);
    const run = record.prepare('select name from kysely_migration order by name').all();
    expect(run.map((row) => (row as { name: string }).name)).toEqual(names);
    record.close();
  });

  test('one that fails leaves no table of its own behind', async () => {
    const broken = {
      ...MIGRATIONS,
      '900-broken': {
        up: async (db: Kysely<unknown>) => {
          await db.schema.createTable('half').addColumn('id', 'text').execute();
          throw new Error('killed');
        },
      },
    };
    (await openDatabase(folder)).close();
    await expect(openDatabase(folder, new Date(), broken)).rejects.toThrow('killed');
    const other = new Database(file);
    const tables = other.prepare("select name from sqlite_schema where name = 'half'").all();
    other.close();
    expect(tables).toEqual([]);
    (await openDatabase(folder)).close();
  });
});

describe('bytes that are no text', () => {
  test('mark their chart damaged and leave the others whole', async () => {
    const open = await openDatabase(folder);
    const id = await createChart(open.db, TEXT);
    const sound = await createChart(open.db, '| G7 |');
    const other = new Database(file);
    other.exec(`update chart set text = cast(x'7c20ff4320' || text as text) where id = '${id}'`);
    other.close();
    const damaged = await findChart(open.db, id);
    expect(damaged).toMatchObject({ damaged: true });
    expect(damaged?.text).toContain('title: Nine Kettles');
    expect(await findChart(open.db, sound)).toMatchObject({ damaged: false, text: '| G7 |' });
    expect(await listCharts(open.db)).toHaveLength(2);
    open.close();
  });

  test('in any text of any table end nothing: every list, session and archive answers', async () => {
    const open = await openDatabase(folder);
    const { db } = open;
    const chart = await createChart(db, TEXT);
    await createLick(db, LICK);
    await createLick(db, LICK, chart);
    await addStints(db, [stintSchema.parse({ ...STINT, chart })]);
    await answerCard(db, { id: 'name general 5-8', right: true }, 1_700_000_000_000);
    await saveSettings(db, (await findSettings(db)).settings, 0);
    const columns = ['chart', 'lick', 'stint', 'card', 'setting'].flatMap((table) =>
      (
        new Database(file)
          .prepare('select name, lower(type) as type from pragma_table_info(?)')
          .all(table) as { name: string; type: string }[]
      )
        .filter(({ name }) => name !== 'deleted_at' && name !== 'id')
        .map(({ name }) => [table, name] as const),
    );
    expect(columns.length).toBeGreaterThan(40);
    for (const [table, column] of columns) {
      const other = new Database(file);
      const kept = other
        .prepare(`select rowid, cast(${column} as blob) as was from ${table}`)
        .all();
      // A number too may have become such a text.
      other.exec(`update ${table} set ${column} = cast(x'61ff4320' as text)`);
      other.close();
      const { settings } = await findSettings(db);
      await Promise.all([
        listCharts(db),
        findChart(db, chart),
        listLicks(db),
        listTakes(db, chart),
        listStints(db),
        sitting(db, [], 0),
        practiceCharts(db, settings),
        sweepSounds(db, folder, () => new Set()),
      ]);
      // What cannot go into an archive is left out of it, and the rest is there to be read back.
      const pieces: Uint8Array[] = [];
      for await (const piece of writeArchive(db, folder, '2026-06-15T18:00:00.000Z'))
        pieces.push(piece);
      const zip = join(folder, 'written.zip');
      writeFileSync(zip, Buffer.concat(pieces));
      const read = await readArchive(zip);
      expect(read.ok, `${table}.${column}`).toBe(true);
      if (read.ok) read.archive.close();
      const back = new Database(file);
      for (const row of kept as { rowid: number; was: ArrayBuffer | null }[])
        back
          .prepare(`update ${table} set ${column} = cast(? as text) where rowid = ?`)
          .run(row.was && Buffer.from(row.was), row.rowid);
      back.close();
    }
    open.close();
  });

  test('in the names of the tables make the file damaged, and no crash', async () => {
    const open = await openDatabase(folder);
    await createChart(open.db, TEXT);
    open.close();
    const bytes = readFileSync(file);
    bytes[bytes.indexOf('chart_deleted')] = 0xff;
    writeFileSync(file, bytes);
    expect(await currentStore()).toMatchObject({ state: 'closed', kind: 'damaged' });
  });
});

describe('one server for one data folder', () => {
  test('a second is refused with where the first is', () => {
    lockFolder(folder, 'http://127.0.0.1:4173/');
    const program = `
      const Database = require('libsql');
      try { new Database(${JSON.stringify(join(folder, 'corvel.lock'))}).exec('begin exclusive'); }
      catch (error) { console.log(error.code); }`;
    const said = execFileSync(process.execPath, ['-e', program]).toString().trim();
    expect(said).toBe('SQLITE_BUSY');
    unlockFolder();
    expect(execFileSync(process.execPath, ['-e', program]).toString().trim()).toBe('');
  });

  test('a killed one leaves no lock behind', async () => {
    const lock = JSON.stringify(join(folder, 'corvel.lock'));
    const child = spawn(process.execPath, [
      '-e',
      `new (require('libsql'))(${lock}).exec('begin exclusive'); console.log('held'); setInterval(() => 0, 999);`,
    ]);
    await new Promise((resolve) => child.stdout.once('data', resolve));
    expect(() => {
      lockFolder(folder, '');
    }).toThrow('already running');
    child.kill('SIGKILL');
    await new Promise((resolve) => child.once('exit', resolve));
    expect(() => {
      lockFolder(folder, '');
    }).not.toThrow();
  });
});

describe('backups', () => {
  const backupsOf = () => join(folder, 'backups');

  test('a broken or empty one is not offered, and made anew', async () => {
    const open = await openDatabase(folder);
    await createChart(open.db, TEXT);
    const noon = new Date('2026-03-01T12:00:00Z');
    await backUp(open, noon);
    const [name = ''] = listBackups(folder);
    writeFileSync(join(backupsOf(), name), '');
    expect(listBackups(folder)).toEqual([]);
    await backUp(open, new Date('2026-03-01T12:30:00Z'));
    expect(listBackups(folder)).toHaveLength(1);
    open.close();
  });

  test('after hours of change, and at a clean stop, there is another', async () => {
    const open = await openDatabase(folder);
    const id = await createChart(open.db, TEXT);
    const at = (hour: string) => new Date(new Date().toISOString().slice(0, 11) + hour);
    await backUp(open, at('01:00:00Z'));
    await backUp(open, at('23:00:00Z'));
    expect(listBackups(folder)).toHaveLength(1);
    await saveChart(open.db, id, { revision: 1, text: '| F |', plan: '{}' });
    await backUp(open, at('02:00:00Z'));
    expect(listBackups(folder)).toHaveLength(1);
    await backUp(open, at('23:30:00Z'));
    expect(listBackups(folder)).toHaveLength(2);
    await saveChart(open.db, id, { revision: 2, text: '| G |', plan: '{}' });
    open.close();
    expect(listBackups(folder).filter((name) => name.includes('stop'))).toHaveLength(1);
  });

  test.each<[string, (db: Db, of: { lick: string; chart: string }) => Promise<unknown>]>([
    ['a lick', (db, { lick }) => saveLick(db, lick, 1, { ...LICK, title: 'Again' })],
    ['a lick that is put away', (db, { lick }) => deleteLick(db, lick)],
    ['a take', (db, { chart }) => createLick(db, LICK, chart)],
    ['a stint', (db, { chart }) => addStints(db, [stintSchema.parse({ ...STINT, chart })])],
    ['a card', (db) => answerCard(db, { id: 'name general 5-8', right: true }, 1_700_000_000_000)],
    ['the settings', async (db) => saveSettings(db, (await findSettings(db)).settings, 0)],
    ['how a chart is looked at', (db, { chart }) => saveView(db, chart, DEFAULT_VIEW)],
  ])('%s that changed makes one at a clean stop', async (_, work) => {
    const open = await openDatabase(folder);
    const of = { chart: await createChart(open.db, TEXT), lick: await createLick(open.db, LICK) };
    open.close();
    const stops = () => listBackups(folder).filter((name) => name.includes('stop')).length;
    rmSync(backupsOf(), { recursive: true });
    const again = await openDatabase(folder);
    await work(again.db, of);
    again.close();
    expect(stops()).toBe(1);
    // Nothing changed: none is made.
    rmSync(backupsOf(), { recursive: true });
    (await openDatabase(folder)).close();
    expect(stops()).toBe(0);
  });

  test('half a sound is cleared away at the start, and never left by a write that fails', async () => {
    mkdirSync(join(folder, 'takes'), { recursive: true });
    writeFileSync(join(folder, 'takes', 'half.wav.part'), 'RIFF');
    await currentStore();
    expect(readdirSync(join(folder, 'takes'))).toEqual([]);
    // A folder stands where the sound should be: it cannot be renamed there.
    mkdirSync(join(folder, 'takes', 'one.wav', 'inside'), { recursive: true });
    await expect(putSound(folder, 'one', new Uint8Array(4))).rejects.toThrow();
    expect(readdirSync(join(folder, 'takes'))).toEqual(['one.wav']);
  });

  test('one that cannot be made stops nothing', async () => {
    const open = await openDatabase(folder);
    await createChart(open.db, TEXT);
    writeFileSync(backupsOf(), 'a file where the folder should be');
    await backUp(open, new Date());
    expect(await listCharts(open.db)).toHaveLength(1);
    open.close();
  });

  test('what was begun and never ended is cleared away', async () => {
    mkdirSync(backupsOf());
    writeFileSync(join(backupsOf(), '20260301T120000-daily.sqlite.part'), 'half');
    await currentStore();
    expect(readdirSync(backupsOf())).toEqual([]);
  });
});

/** A folder with a backup of one chart and a damaged or missing file. */
async function brokenFolder(damage: () => void): Promise<string> {
  const open = await openDatabase(folder);
  const id = await createChart(open.db, TEXT);
  await backUp(open, new Date());
  open.close();
  damage();
  return id;
}

describe('the way back', () => {
  test('a missing or an empty file beside good backups is no first start', async () => {
    const id = await brokenFolder(() => {
      rmSync(file);
    });
    expect(await currentStore()).toMatchObject({ state: 'closed', kind: 'missing' });
    const [name = ''] = listBackups(folder);
    expect(await restoreBackup(name)).toBe(true);
    const store = await currentStore();
    expect(store.state === 'open' && (await findChart(store.db, id))?.text).toBe(TEXT);
    closeStore();
    writeFileSync(file, '');
    expect(await currentStore()).toMatchObject({ kind: 'missing' });
  });

  test('everything replaced is kept, the log too', async () => {
    await brokenFolder(() => {
      writeFileSync(file, 'not a database at all, only words '.repeat(300));
      writeFileSync(`${file}-wal`, 'a log');
    });
    await currentStore();
    const [name = ''] = listBackups(folder);
    expect(await restoreBackup(name)).toBe(true);
    const aside = readdirSync(folder).find((one) => one.startsWith('set-aside')) ?? '';
    expect(readFileSync(join(folder, aside, 'corvel.sqlite'), 'utf8')).toContain('only words');
    expect(existsSync(join(folder, aside, 'corvel.sqlite-wal'))).toBe(true);
  });

  test('what can be read of a damaged file is opened chart by chart', async () => {
    const open = await openDatabase(folder);
    for (let one = 0; one < 40; one++) {
      await createChart(open.db, `title: Tune ${one}\n${'| C | Am | F | G '.repeat(100)}|`);
    }
    open.close();
    const bytes = readFileSync(file);
    const page = bytes.indexOf('title: Tune 20') & ~4095;
    bytes.fill(0xee, page, page + 4096);
    writeFileSync(file, bytes);
    expect(await currentStore()).toMatchObject({ kind: 'damaged' });
    expect(await restoreReadable()).toBe(true);
    const store = await currentStore();
    const charts = store.state === 'open' ? await listCharts(store.db) : [];
    expect(charts.length).toBeGreaterThan(30);
    expect(charts.map(({ title }) => title)).toContain('Tune 5');
  });

  test('licks, takes, log, cards and settings are opened with the charts, as they were', async () => {
    const open = await openDatabase(folder);
    const { db } = open;
    await beginLickBook(db);
    const chart = await createChart(db, TEXT);
    await saveChart(db, chart, { revision: 1, text: TEXT, plan: '{"zone":null}' });
    const lick = await createLick(db, { ...LICK, title: 'Over the fence' });
    await saveLick(db, lick, 1, { ...LICK, title: 'Over the wall' });
    const take = await createLick(db, { ...LICK, title: 'A take' }, chart);
    await markSound(db, take, 12);
    await putSound(folder, take, new TextEncoder().encode('RIFF....WAVE'));
    const gone = await createLick(db, { ...LICK, title: 'Gone' });
    await deleteLick(db, gone);
    await addStints(db, [stintSchema.parse({ ...STINT, chart })]);
    await answerCard(db, { id: 'name general 5-8', right: true }, Date.now());
    const settings = await findSettings(db);
    await saveSettings(
      db,
      { ...settings.settings, leftHanded: true } as typeof settings.settings,
      0,
    );
    const told = async (from: Db) => ({
      licks: (await listLicks(from)).map(({ id, title, revision }) => [id, title, revision]),
      takes: (await listTakes(from, chart)).map(({ id, title, sound }) => [id, title, sound]),
      log: await listStints(from),
      chart: await findChart(from, chart),
      settings: await findSettings(from),
      cards: await from.selectFrom('card').selectAll().execute(),
    });
    const before = await told(db);
    open.close();
    // The file says it is damaged, and every row can be read.
    const bytes = readFileSync(file);
    bytes[bytes.indexOf('chart_deleted')] = 0xff;
    writeFileSync(file, bytes);
    expect(await currentStore()).toMatchObject({ kind: 'damaged' });
    expect(await restoreReadable()).toBe(true);
    const store = await currentStore();
    if (store.state !== 'open') throw new Error(store.reason);
    expect(await told(store.db)).toEqual(before);
    expect(await restoreLick(store.db, gone)).toBe(true);
    expect(await soundsIn(folder)).toEqual([take]);
  });

  test('any two bytes of the header that are wrong are a problem that has a name, or none', async () => {
    const open = await openDatabase(folder);
    await createChart(open.db, TEXT);
    open.close();
    const whole = readFileSync(join(folder, DATABASE_FILE));
    for (let at = 0; at < 99; at++) {
      const bytes = Buffer.from(whole);
      for (const one of [at, at + 1]) bytes[one] = (bytes[one] ?? 0) ^ 0x5a;
      writeFileSync(join(folder, DATABASE_FILE), bytes);
      const opened = await openDatabase(folder).catch((error: unknown) => error);
      if (opened instanceof Error) expect(opened, `byte ${at}`).toBeInstanceOf(StoreProblem);
      else (opened as OpenDatabase).close();
      for (const suffix of ['-wal', '-shm'])
        rmSync(join(folder, DATABASE_FILE + suffix), { force: true });
    }
  });

  test('each of many flipped bytes leaves everything readable readable', async () => {
    const open = await openDatabase(folder);
    for (let one = 0; one < 12; one++) await createChart(open.db, `title: Tune ${one}\n| C | F |`);
    open.close();
    const whole = readFileSync(file);
    for (let flip = 0; flip < 40; flip++) {
      const bytes = Buffer.from(whole);
      const at = Math.floor((flip / 40) * bytes.length) + 7 * flip;
      bytes[at % bytes.length] = (bytes[at % bytes.length] ?? 0) ^ 0x5a;
      writeFileSync(file, bytes);
      const store = await currentStore();
      const read =
        store.state === 'open'
          ? (await listCharts(store.db)).length
          : ((await salvage(folder)).get('chart') ?? []).length;
      expect(read, `byte ${at}`).toBeGreaterThanOrEqual(11);
      closeStore();
      for (const name of readdirSync(folder)) rmSync(join(folder, name), { recursive: true });
    }
  });

  test('a file of a newer Corvel is left alone', async () => {
    const open = await openDatabase(folder);
    await createChart(open.db, TEXT);
    open.close();
    const other = new Database(file);
    other.exec("insert into kysely_migration values ('998-later', '2030-01-01')");
    other.close();
    expect(await currentStore()).toMatchObject({ state: 'closed', kind: 'newer' });
    expect(await restoreReadable()).toBe(false);
    expect(chartsIn(file)).toBe(1);
  });

  test('a folder that takes no writing is read all the same, and says why it keeps nothing', async () => {
    const open = await openDatabase(folder);
    const id = await createChart(open.db, TEXT);
    open.close();
    const before = readdirSync(folder);
    const reading = openToRead(folder, 'read-only');
    expect((await findChart(reading.db, id))?.text).toBe(TEXT);
    await expect(createChart(reading.db, '| C |')).rejects.toMatchObject({ kind: 'read-only' });
    expect((await findChart(reading.db, id))?.text).toBe(TEXT);
    reading.close();
    // The connection that wrote may let go of its log only now; what reads leaves nothing of its own.
    expect(before).toEqual(expect.arrayContaining(readdirSync(folder)));
  });
});

import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { STARTER_LICKS } from '$core/licks/starter';
import { openDatabase, type OpenDatabase } from './database';
import { createChart, deleteChart, restoreChart } from './charts';
import {
  beginLickBook,
  createLick,
  deleteLick,
  findLick,
  listLicks,
  listTakes,
  markSound,
  restoreLick,
  saveLick,
  soundsBeside,
  sweepSounds,
} from './licks';
import { range } from '$core/lists';
import { keepSound, putSound, readSound, SOUNDS_LIMIT, soundsIn } from './sounds';

const LICK = {
  title: 'Over the fence',
  tags: ['cadence'],
  source: 'mine',
  chart: '| Dm7 | G7 |',
  notes: [
    { beat: 0, beats: 1, string: 3, fret: 7, techniques: [] },
    {
      beat: 1,
      beats: 1,
      string: 3,
      fret: 9,
      techniques: [{ kind: 'bend' as const, by: 2 as const }],
    },
  ],
};

let folder: string;
let open: OpenDatabase;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'corvel-licks-'));
  open = await openDatabase(folder);
});

afterEach(() => {
  open.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('takes', () => {
  test('are kept with their chart and not in the lick book, the latest first', async () => {
    const { db } = open;
    const first = await createLick(db, LICK, 'a-chart');
    await db.updateTable('lick').set({ created_at: '2026-01-01' }).execute();
    const second = await createLick(db, { ...LICK, title: 'Again' }, 'a-chart');
    await createLick(db, LICK, 'another');
    expect((await listTakes(db, 'a-chart')).map(({ id }) => id)).toEqual([second, first]);
    expect(await listLicks(db)).toEqual([]);
    expect(await findLick(db, first)).toMatchObject({ takeOf: 'a-chart', title: LICK.title });
  });

  test('may have their sound, which goes when they are gone for good', async () => {
    const { db } = open;
    const [kept, deleted] = [await createLick(db, LICK, 'one'), await createLick(db, LICK, 'one')];
    const wav = new TextEncoder().encode('RIFF....WAVE');
    for (const id of [kept, deleted]) {
      await putSound(folder, id, wav);
      expect(await markSound(db, id, wav.length)).toBe(true);
    }
    expect(await soundsBeside(db, '')).toBe(2 * wav.length);
    expect(await soundsBeside(db, kept)).toBe(wav.length);
    await deleteLick(db, deleted);
    expect(await soundsBeside(db, '')).toBe(wav.length);
    // Until the server begins anew it can be taken back.
    expect(await readSound(folder, deleted)).toEqual(wav);
    // A backup that names it may be gone back to.
    await sweepSounds(db, folder, () => new Set([deleted]));
    expect(await soundsIn(folder)).toHaveLength(2);
    // One this database does not know is another's.
    await putSound(folder, 'elsewhere', wav);
    await sweepSounds(db, folder, () => new Set());
    expect([...(await soundsIn(folder))].sort()).toEqual([kept, 'elsewhere'].sort());
    expect(await findLick(db, kept)).toMatchObject({ sound: wav.length });
    // A lick of the book has none.
    expect(await markSound(db, await createLick(db, LICK), 12)).toBe(false);
  });

  test('that come at once do not disturb one another, nor fill more than there is room for', async () => {
    const wav = new TextEncoder().encode('RIFF....WAVE and what was played');
    await Promise.all(range(0, 4).map(() => putSound(folder, 'one', wav)));
    expect(await readSound(folder, 'one')).toEqual(wav);
    expect(await soundsIn(folder)).toEqual(['one']);
    const large = new Uint8Array(SOUNDS_LIMIT * 0.3);
    /** What the database would say of those that are kept. */
    let told = 0;
    const keep = (id: string, others = () => told) =>
      keepSound(folder, id, large, {
        others: async () => others(),
        mark: async () => (told += large.length) > 0,
      });
    const kept = await Promise.all(range(0, 6).map((which) => keep(`large${which}`)));
    expect(kept.filter((one) => one === 'kept')).toHaveLength(3);
    expect(await keep('more')).toBe('full');
    // Room that was promised is there again, whatever became of it.
    expect(await keep('again', () => 0)).toBe('kept');
    const gone = { others: async () => 0, mark: async () => false };
    expect(await keepSound(folder, 'gone', large, gone)).toBe('missing');
    expect(await readSound(folder, 'gone')).toBeNull();
  });

  test('go with their chart and come back with it; one that was deleted before does not', async () => {
    const { db } = open;
    const chart = await createChart(db, '| C |');
    const [first, second] = [await createLick(db, LICK, chart), await createLick(db, LICK, chart)];
    const other = await createLick(db, LICK, 'another');
    await deleteLick(db, second);
    await db
      .updateTable('lick')
      .set({ deleted_at: '2026-01-01' })
      .where('id', '=', second)
      .execute();
    expect(await deleteChart(db, chart)).toBe(true);
    expect(await deleteChart(db, chart)).toBe(false);
    expect(await listTakes(db, chart)).toEqual([]);
    expect(await findLick(db, other)).not.toBeNull();
    expect(await restoreChart(db, chart)).toBe(true);
    expect((await listTakes(db, chart)).map(({ id }) => id)).toEqual([first]);
  });

  test.each(['../other', 'a/b', '', 'a.b'])('no id leads out of their folder: “%s”', async (id) => {
    await putSound(folder, id, new Uint8Array(4));
    expect(await readSound(folder, id)).toBeNull();
    expect(await soundsIn(folder)).toEqual([]);
  });
});

describe('licks in the database', () => {
  test('are kept whole, and a stale save is answered with what stands', async () => {
    const { db } = open;
    const id = await createLick(db, LICK);
    expect(await findLick(db, id)).toMatchObject({
      id,
      revision: 1,
      takeOf: null,
      sound: null,
      ...LICK,
    });
    const edited = { ...LICK, title: 'Over the wall' };
    expect(await saveLick(db, id, 1, edited)).toEqual({ kind: 'saved', revision: 2 });
    const stale = await saveLick(db, id, 1, LICK);
    expect(stale).toMatchObject({
      kind: 'conflict',
      current: { title: 'Over the wall', revision: 2 },
    });
    expect(await saveLick(db, 'nothing', 1, LICK)).toEqual({ kind: 'missing' });
  });

  test('made under an id of the page’s own, one is made once, however often it is sent', async () => {
    const { db } = open;
    expect(await saveLick(db, 'ofthepage', 0, LICK)).toEqual({ kind: 'saved', revision: 1 });
    expect(await saveLick(db, 'ofthepage', 0, LICK)).toEqual({ kind: 'saved', revision: 1 });
    expect(await listLicks(db)).toHaveLength(1);
    expect(await saveLick(db, 'ofthepage', 0, { ...LICK, title: 'Other' })).toMatchObject({
      kind: 'conflict',
      current: { title: LICK.title, revision: 1 },
    });
    await deleteLick(db, 'ofthepage');
    expect(await saveLick(db, 'ofthepage', 0, LICK)).toEqual({ kind: 'missing' });
  });

  test('deleted, they come back whole', async () => {
    const { db } = open;
    const id = await createLick(db, LICK);
    expect(await deleteLick(db, id)).toBe(true);
    expect(await deleteLick(db, id)).toBe(false);
    expect(await findLick(db, id)).toBeNull();
    expect(await listLicks(db)).toEqual([]);
    expect(await restoreLick(db, id)).toBe(true);
    expect(await findLick(db, id)).toMatchObject({ title: 'Over the fence' });
  });

  test('an empty book begins with ours, once, after the player’s own', async () => {
    const { db } = open;
    await beginLickBook(db);
    await beginLickBook(db);
    const id = await createLick(db, LICK);
    const all = await listLicks(db);
    expect(all.length).toBe(STARTER_LICKS.length + 1);
    expect(all[0]?.id).toBe(id);
    for (const { id: one } of all) await deleteLick(db, one);
    await beginLickBook(db);
    expect(await listLicks(db)).toEqual([]);
  });

  test('thirds that were stored as decimals are read as thirds', async () => {
    const id = await createLick(open.db, LICK);
    const notes = [0, 0.333, 0.667].map((beat) => ({ ...LICK.notes[0], beat, beats: 0.3333 }));
    const stored = { notes: JSON.stringify(notes) };
    await open.db.updateTable('lick').set(stored).where('id', '=', id).execute();
    const read = (await findLick(open.db, id))?.notes ?? [];
    expect(read.map(({ beat, beats }) => [beat, beats])).toEqual(
      [0, 1 / 3, 2 / 3].map((beat) => [beat, 1 / 3]),
    );
  });

  test('what cannot be read of a row is left out, the rest is shown', async () => {
    const { db } = open;
    const id = await createLick(db, LICK);
    await db
      .updateTable('lick')
      .set({ notes: '{broken', tags: '7' })
      .where('id', '=', id)
      .execute();
    expect(await findLick(db, id)).toMatchObject({ title: LICK.title, notes: [], tags: [] });
  });
});

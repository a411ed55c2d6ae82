import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { range } from '$core/lists';
import { STANDARD_NECK } from 'corvel-core';
import type { PracticeChart } from '$core/log/practice';
import { zonesOf } from '$core/neck/zones';
import { note } from '$core/notes/notes';
import { stintSchema } from '$lib/log/messages';
import { type Kysely, sql } from 'kysely';
import { answerCard, sitting } from './cards';
import { openDatabase, type OpenDatabase } from './database';
import { up as ruleOfLanding } from './migrations/006-rule';
import {
  addStints,
  deleteStint,
  listStints,
  readStints,
  restoreStint,
  saveStint,
  stintsBefore,
  takeLog,
} from './stints';

const STINT = stintSchema.parse({
  at: '2026-06-15T18:00:00+02:00',
  chart: 'abc',
  exercise: 'targets',
  zone: { low: 5, high: 8 },
  extent: 'section',
  tempoFrom: 90,
  tempo: 96,
  minutes: 4.5,
  asked: 20,
  landed: 18,
});

let folder: string;
let open: OpenDatabase;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'corvel-stints-'));
  open = await openDatabase(folder);
});
afterEach(async () => {
  await open.db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

test('a stint comes back with every digit it was sent with: sent again, it is the same', async () => {
  const sent = { ...STINT, minutes: 0.6787633333332836, tempo: 133.33333333333334 };
  expect(await saveStint(open.db, 'exactlyso', 0, sent)).toEqual({ kind: 'saved', revision: 1 });
  const [there] = await listStints(open.db);
  expect([there?.minutes, there?.tempo]).toEqual([sent.minutes, sent.tempo]);
  expect(await saveStint(open.db, 'exactlyso', 0, { ...sent, minutes: 0.7 })).toMatchObject({
    kind: 'conflict',
    current: { minutes: sent.minutes, tempo: sent.tempo },
  });
});

describe('stints', () => {
  test('are kept as they were, the newest first, whatever their offset', async () => {
    const later = { ...STINT, at: '2026-06-15T12:30:00-07:00', asked: null, landed: null };
    await addStints(open.db, [STINT, later]);
    const stints = await listStints(open.db);
    expect(stints.map(({ at }) => at)).toEqual([later.at, STINT.at]);
    const time = Date.parse(STINT.at);
    expect(stints[1]).toEqual({ ...STINT, id: expect.any(String), time, revision: 1 });
    expect(await listStints(open.db, Date.parse(later.at))).toHaveLength(1);
  });

  test('that were counted before the rule of landing was one say so, and go on saying so', async () => {
    const drill = { ...STINT, exercise: 'drills' };
    const silent = { ...STINT, asked: null, landed: null };
    await addStints(open.db, [STINT, drill, silent]);
    // As the migration before left it.
    await sql`alter table stint drop column earlier_rule`.execute(open.db);
    await ruleOfLanding(open.db as Kysely<unknown>);
    const [fresh = ''] = await addStints(open.db, [{ ...STINT, exercise: 'free' }]);
    const told = async () =>
      Object.fromEntries(
        (await listStints(open.db)).map(({ exercise, asked, earlierRule }) => [
          `${exercise} ${asked}`,
          earlierRule ?? false,
        ]),
      );
    const marked = {
      'targets 20': true,
      'targets null': false,
      'drills 20': false,
      'free 20': false,
    };
    expect(await told()).toEqual(marked);
    const old = (await listStints(open.db)).find(({ earlierRule }) => earlierRule === true);
    await saveStint(open.db, old?.id ?? '', 1, { ...STINT, earlierRule: true, note: 'well' });
    await saveStint(open.db, fresh, 1, { ...STINT, exercise: 'free', note: 'well' });
    expect(await told()).toEqual(marked);
  });

  test('are changed, taken out and brought back', async () => {
    const [id = ''] = await addStints(open.db, [STINT]);
    const slower = { ...STINT, note: 'slower next time' };
    expect(await saveStint(open.db, id, 1, slower)).toEqual({ kind: 'saved', revision: 2 });
    expect((await listStints(open.db))[0]?.note).toBe('slower next time');
    expect(await deleteStint(open.db, id)).toBe(true);
    expect(await deleteStint(open.db, id)).toBe(false);
    expect(await listStints(open.db)).toEqual([]);
    expect(await restoreStint(open.db, id)).toBe(true);
    expect(await listStints(open.db)).toHaveLength(1);
    expect(await saveStint(open.db, 'no such', 1, STINT)).toEqual({ kind: 'missing' });
  });

  test('made on a page are there once, however often they are sent', async () => {
    const made = { kind: 'saved', revision: 1 };
    expect(await saveStint(open.db, 'madehere1', 0, STINT)).toEqual(made);
    expect(await saveStint(open.db, 'madehere1', 0, STINT)).toEqual(made);
    expect(await listStints(open.db)).toHaveLength(1);
    const longer = { ...STINT, minutes: 9 };
    expect(await saveStint(open.db, 'madehere1', 0, longer)).toMatchObject({
      kind: 'conflict',
      current: { id: 'madehere1', minutes: 4.5, revision: 1 },
    });
    expect(await deleteStint(open.db, 'madehere1')).toBe(true);
    // What was taken out stays out.
    expect(await saveStint(open.db, 'madehere1', 0, STINT)).toEqual({ kind: 'missing' });
  });

  test('changed in two places are not written over', async () => {
    const [id = ''] = await addStints(open.db, [STINT]);
    const [one, other] = await Promise.all([
      saveStint(open.db, id, 1, { ...STINT, note: 'one' }),
      saveStint(open.db, id, 1, { ...STINT, note: 'other' }),
    ]);
    expect(one).toEqual({ kind: 'saved', revision: 2 });
    expect(other).toMatchObject({ kind: 'conflict', current: { note: 'one', revision: 2 } });
    const again = await saveStint(open.db, id, 1, { ...STINT, note: 'one' });
    expect(again).toEqual({ kind: 'saved', revision: 2 });
  });

  test('are read in portions that miss none and have none twice', async () => {
    const many = range(0, 4_100).map((index) => ({
      ...STINT,
      // Many at the same moment, over the end of a portion.
      at: new Date(1_700_000_000_000 + Math.floor(index / 300) * 60_000).toISOString(),
      note: String(index),
    }));
    await addStints(open.db, many);
    const sizes: number[] = [];
    for await (const portion of readStints(open.db)) sizes.push(portion.length);
    expect(sizes).toEqual([2_000, 2_000, 100]);
    const all = await listStints(open.db);
    const [last] = all.slice(299, 300);
    if (!last) throw new Error('no stint');
    expect(await stintsBefore(open.db, last, 5)).toEqual(all.slice(300, 305));
    expect(new Set(all.map(({ note: number }) => number)).size).toBe(4_100);
    expect(all.map(({ time }) => time)).toEqual(all.map(({ time }) => time).sort((a, b) => b - a));
  });

  test.each([
    { minutes: 0.2 },
    { at: '2026-06-15' },
    { tempo: 0 },
    { chart: '' },
    { extent: 'half' },
    { landed: -1 },
  ])('%j is refused', (wrong) => {
    expect(stintSchema.safeParse({ ...STINT, ...wrong }).success).toBe(false);
  });
});

describe('a log that was written out', () => {
  async function* pieces(text: string) {
    for (let from = 0; from < text.length; from += 64)
      yield new TextEncoder().encode(text.slice(from, from + 64));
  }
  const later = { ...STINT, at: '2026-06-16T18:00:00+02:00' };
  const taken = (value: unknown) =>
    takeLog(open.db, pieces(typeof value === 'string' ? value : JSON.stringify(value)));

  test('is taken in; what is there already is not added again', async () => {
    await addStints(open.db, [STINT]);
    const stints = [STINT, later];
    expect(await taken({ stints })).toEqual({ kind: 'log', added: 1, known: 1 });
    expect(await taken({ stints })).toEqual({ kind: 'log', added: 0, known: 2 });
    expect(await listStints(open.db)).toHaveLength(2);
  });

  test.each([
    [
      { stints: [later, { ...later, tempo: 0 }, later] },
      '“stints.1.tempo” is not as a log has it.',
    ],
    [{ stints: [later, 'a stint'] }, '“stints.1” is not as a log has it.'],
    [{ stints: { one: later } }, 'This is no log'],
    [JSON.stringify({ stints: [later] }).slice(0, -1), 'This is no log'],
    ['{"stints": [}', 'This is no log'],
  ])('%j is refused, and nothing of it is kept', async (wrong, words) => {
    expect(await taken(wrong)).toMatchObject({
      kind: 'refused',
      message: expect.stringContaining(words) as string,
    });
    expect(await listStints(open.db)).toEqual([]);
  });
});

describe('cards', () => {
  const NOW = Date.parse('2026-06-15T18:00:00Z');
  const chart = (id: string): PracticeChart => ({
    id,
    title: id,
    tempo: 100,
    change: 0,
    zones: zonesOf(STANDARD_NECK, note('C')),
  });

  /** When a card that was answered comes back. */
  async function answered(id: string, right: boolean, now: number): Promise<number> {
    const result = await answerCard(open.db, { id, right }, now);
    return result.kind === 'saved' ? result.card.due : NaN;
  }

  test('are answered once for each time they are dealt, however often the answer is sent', async () => {
    const [card] = await sitting(open.db, [], NOW);
    if (!card) throw new Error('no cards');
    const answer = { id: card.id, right: true, seen: card.seen, answer: 'first-answer' };
    const once = await answerCard(open.db, answer, NOW);
    expect(once).toMatchObject({ kind: 'saved', card: { seen: 1 } });
    expect(await answerCard(open.db, answer, NOW + 60_000)).toEqual(once);
    // Dealt on two pages, answered on both.
    const elsewhere = { ...answer, right: false, answer: 'other-answer' };
    expect(await answerCard(open.db, elsewhere, NOW)).toMatchObject({
      kind: 'conflict',
      current: { seen: 1 },
    });
    const [again] = (await sitting(open.db, [], NOW + 400 * 86_400_000)).filter(
      ({ id }) => id === card.id,
    );
    expect(again?.seen).toBe(1);
  });

  test('of the player’s own charts come first, ten to a sitting', async () => {
    const cards = await sitting(open.db, [chart('one'), chart('two')], NOW);
    expect(cards).toHaveLength(10);
    expect(cards.every((card) => card.chart === 'one' && card.seen === 0)).toBe(true);
    expect((await sitting(open.db, [], NOW)).every((card) => card.chart === null)).toBe(true);
  });

  test('answered right rest; answered wrong come back sooner, with another question', async () => {
    const [first, second] = await sitting(open.db, [chart('one')], NOW);
    if (!first || !second) throw new Error('no cards');
    const right = await answered(first.id, true, NOW);
    const wrong = await answered(second.id, false, NOW);
    expect(wrong).toBeLessThan(right);
    const later = await sitting(open.db, [chart('one')], right + 1);
    expect(later.slice(0, 2).map(({ id }) => id)).toEqual([second.id, first.id]);
    expect(later[1]?.seed).not.toBe(first.seed);
    const now = await sitting(open.db, [chart('one')], NOW);
    expect(now.map(({ id }) => id)).not.toContain(first.id);
  });

  test('a clock set back breaks nothing', async () => {
    const [first] = await sitting(open.db, [], NOW);
    if (!first) throw new Error('no cards');
    await answered(first.id, true, NOW);
    const due = await answered(first.id, true, NOW - 400 * 86_400_000);
    expect(due).toBeGreaterThan(NOW);
  });
});

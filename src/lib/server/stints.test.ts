import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { STANDARD_NECK } from '$core/neck/neck';
import type { PracticeChart } from '$core/log/session';
import { zonesOf } from '$core/neck/zones';
import { note } from '$core/notes/notes';
import { stintSchema } from '$lib/log/messages';
import { type Kysely, sql } from 'kysely';
import { answerCard, sitting } from './cards';
import { openDatabase, type OpenDatabase } from './database';
import { up as ruleOfLanding } from './migrations/006-rule';
import { addStints, changeStint, deleteStint, listStints, restoreStint } from './stints';

const STINT = stintSchema.parse({
  ...{ at: '2026-06-15T18:00:00+02:00', chart: 'abc', exercise: 'targets' },
  ...{ zone: { low: 5, high: 8 }, extent: 'section', tempoFrom: 90, tempo: 96, minutes: 4.5 },
  ...{ asked: 20, landed: 18 },
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

describe('stints', () => {
  test('are kept as they were, the newest first, whatever their offset', async () => {
    const later = { ...STINT, at: '2026-06-15T12:30:00-07:00', asked: null, landed: null };
    await addStints(open.db, [STINT, later]);
    const stints = await listStints(open.db);
    expect(stints.map(({ at }) => at)).toEqual([later.at, STINT.at]);
    const time = Date.parse(STINT.at);
    expect(stints[1]).toEqual({ ...STINT, id: expect.any(String), time });
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
    await changeStint(open.db, old?.id ?? '', { ...STINT, earlierRule: true, note: 'well' });
    await changeStint(open.db, fresh, { ...STINT, exercise: 'free', note: 'well' });
    expect(await told()).toEqual(marked);
  });

  test('are changed, taken out and brought back', async () => {
    const [id = ''] = await addStints(open.db, [STINT]);
    expect(await changeStint(open.db, id, { ...STINT, note: 'slower next time' })).toBe(true);
    expect((await listStints(open.db))[0]?.note).toBe('slower next time');
    expect(await deleteStint(open.db, id)).toBe(true);
    expect(await deleteStint(open.db, id)).toBe(false);
    expect(await listStints(open.db)).toEqual([]);
    expect(await restoreStint(open.db, id)).toBe(true);
    expect(await listStints(open.db)).toHaveLength(1);
    expect(await changeStint(open.db, 'no such', STINT)).toBe(false);
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

describe('cards', () => {
  const NOW = Date.parse('2026-06-15T18:00:00Z');
  const chart = (id: string): PracticeChart => ({
    ...{ id, title: id, tempo: 100, change: 0 },
    zones: zonesOf(STANDARD_NECK, note('C')),
  });

  test('of the player’s own charts come first, ten to a sitting', async () => {
    const cards = await sitting(open.db, [chart('one'), chart('two')], NOW);
    expect(cards).toHaveLength(10);
    expect(cards.every((card) => card.chart === 'one' && !card.met)).toBe(true);
    expect((await sitting(open.db, [], NOW)).every((card) => card.chart === null)).toBe(true);
  });

  test('answered right rest; answered wrong come back sooner, with another question', async () => {
    const [first, second] = await sitting(open.db, [chart('one')], NOW);
    if (!first || !second) throw new Error('no cards');
    const right = await answerCard(open.db, first.id, true, NOW);
    const wrong = await answerCard(open.db, second.id, false, NOW);
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
    await answerCard(open.db, first.id, true, NOW);
    const due = await answerCard(open.db, first.id, true, NOW - 400 * 86_400_000);
    expect(due).toBeGreaterThan(NOW);
  });
});

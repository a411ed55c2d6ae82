/** The outbox against the server's own rules: a log in a real file behind a network that comes and goes. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'kysely';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { stintSave, stintSchema } from '$lib/log/messages';
import { answerSchema } from '$lib/drills/cards';
import { answerCard } from '$lib/server/cards';
import { openDatabase, type OpenDatabase } from '$lib/server/database';
import { saved } from '$lib/server/respond';
import { deleteStint, listStints, saveStint } from '$lib/server/stints';

const STINT = stintSchema.parse({
  at: '2026-06-15T18:00:00+02:00',
  chart: 'abc',
  exercise: 'targets',
  zone: { low: 5, high: 8 },
  tempoFrom: 90,
  tempo: 96,
  minutes: 4.5,
});
const PATH = '/api/stints/madehere1';

let folder: string;
let open: OpenDatabase;
/** Whether requests arrive, and whether their answers come back. */
let arrives: boolean;
let answers: boolean;
/** Whether they break off within, as when the server is stopped. */
let cut: boolean;
const broken = () =>
  new ReadableStream({ start: (body) => void body.error(new TypeError('network error')) });
/** Whether sounds arrive, and which did. */
let hears: boolean;
let sounds: string[];
let storage: Record<string, string>;
let room: number;

/** What the page would hear; as the endpoint answers. */
async function request(path: string, { body }: { readonly body: string }): Promise<Response> {
  if (!arrives) throw new TypeError('Failed to fetch');
  if (path === '/api/cards') {
    const result = await answerCard(open.db, answerSchema.parse(JSON.parse(body)), Date.now());
    return Response.json(result.kind === 'saved' ? result.card : { current: result.current }, {
      status: result.kind === 'saved' ? 200 : 409,
    });
  }
  if (path.endsWith('/sound')) {
    if (!hears) throw new TypeError('Failed to fetch');
    sounds.push(path);
    return new Response(null, { status: 204 });
  }
  const { revision, ...stint } = stintSave.parse(JSON.parse(body));
  const result = await saveStint(open.db, path.split('/').at(-1) ?? '', revision, stint);
  const response = saved(result, () => new Response('{}', { status: 404 }), 'This stint was');
  if (!answers) throw new TypeError('Failed to fetch');
  return cut ? new Response(broken(), { status: response.status }) : response;
}

/** A page of its own in the same browser. */
async function page() {
  vi.resetModules();
  return { ...(await import('./acknowledged')), ...(await import('./outbox.svelte')) };
}
type Page = Awaited<ReturnType<typeof page>>;

const keepOn = (on: Page, changed: object = {}, revision = 0, base: object | null = null) =>
  on.send({
    path: PATH,
    fields: { ...STINT, ...changed },
    revision,
    what: 'The stint',
    base: base && { ...STINT, ...base },
  });

const stored = async () => (await listStints(open.db))[0];
const count = () => Object.keys(storage).filter((key) => key.startsWith('corvel:out:')).length;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'corvel-outbox-'));
  open = await openDatabase(folder);
  [arrives, answers, cut, hears, sounds] = [true, true, false, true, []];
  [storage, room] = [{}, Infinity];
  const methods = {
    getItem: (key: string) => storage[key] ?? null,
    setItem: (key: string, value: string) => {
      if (value.length > room) throw new DOMException('full', 'QuotaExceededError');
      storage[key] = value;
    },
    removeItem: (key: string) => {
      Reflect.deleteProperty(storage, key);
    },
  };
  vi.stubGlobal(
    'localStorage',
    new Proxy(methods, {
      ownKeys: () => Object.keys(storage),
      getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }),
    }),
  );
  vi.stubGlobal('window', { addEventListener: vi.fn(), removeEventListener: vi.fn() });
  vi.stubGlobal('fetch', request);
});

afterEach(async () => {
  vi.unstubAllGlobals();
  await open.db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

describe('the outbox', () => {
  test('sends what is done at once, and keeps nothing of it', async () => {
    const here = await page();
    expect(await keepOn(here)).toEqual({ kind: 'kept', revision: 1 });
    expect(await keepOn(here, { minutes: 5 })).toEqual({ kind: 'kept', revision: 2 });
    expect(await stored()).toMatchObject({ minutes: 5, revision: 2 });
    expect(count()).toBe(0);
  });

  test('keeps what cannot be sent, the newest of it, and the next page sends that', async () => {
    const here = await page();
    arrives = false;
    expect(await keepOn(here)).toEqual({ kind: 'waiting' });
    await keepOn(here, { minutes: 6 });
    expect([here.outbox.waiting, here.outbox.away, here.outbox.lasting]).toEqual([1, 'away', true]);
    arrives = true;
    const next = await page();
    const heard = new Promise<void>((resolve) => next.onKept('/api/stints', resolve));
    next.openOutbox();
    await heard;
    expect(await stored()).toMatchObject({ minutes: 6, revision: 1 });
    expect([next.outbox.waiting, count()]).toEqual([0, 0]);
  });

  test('sends again what arrived without an answer, and it is there once', async () => {
    const here = await page();
    answers = false;
    expect(await keepOn(here)).toEqual({ kind: 'waiting' });
    answers = true;
    // It has gone on meanwhile: what stands there is one's own, and no one else's.
    expect(await keepOn(here, { minutes: 8 })).toEqual({ kind: 'kept', revision: 2 });
    expect(await listStints(open.db)).toHaveLength(1);
    expect(await stored()).toMatchObject({ minutes: 8 });
  });

  test('an answer that breaks off has not come: the next change asks nobody', async () => {
    const here = await page();
    cut = true;
    expect(await keepOn(here)).toEqual({ kind: 'waiting' });
    cut = false;
    expect(await keepOn(here, { minutes: 8 })).toEqual({ kind: 'kept', revision: 2 });
    expect(await stored()).toMatchObject({ minutes: 8 });
    expect(count()).toBe(0);
    // Nor has one that says what another has saved.
    await saveStint(open.db, 'madehere1', 2, { ...STINT, minutes: 8, note: 'another’s' });
    cut = true;
    expect(await keepOn(here, { minutes: 9 }, 2)).toEqual({ kind: 'waiting' });
    cut = false;
    expect(await keepOn(here, { minutes: 9 }, 2, { minutes: 8 })).toMatchObject({ kind: 'kept' });
    expect(await stored()).toMatchObject({ minutes: 9, note: 'another’s' });
  });

  test('knows its own among all that may have arrived, however often it was tried since', async () => {
    const here = await page();
    answers = false;
    await keepOn(here, { minutes: 5 });
    arrives = false;
    for (const minutes of [6, 7, 8, 9, 10, 11, 12, 13, 14, 15]) await keepOn(here, { minutes });
    [arrives, answers] = [true, true];
    expect(await keepOn(here, { minutes: 16 })).toEqual({ kind: 'kept', revision: 2 });
    expect(await stored()).toMatchObject({ minutes: 16 });
  });

  test('sends what was changed while an earlier change was on its way, on that', async () => {
    const here = await page();
    const first = keepOn(here);
    const second = keepOn(here, { minutes: 6 });
    await Promise.all([first, second]);
    expect(await stored()).toMatchObject({ minutes: 6, revision: 2 });
    expect([here.outbox.waiting, count()]).toEqual([0, 0]);
  });

  test('puts together what two pages changed apart from each other', async () => {
    const [one, other] = [await page(), await page()];
    await keepOn(one);
    await keepOn(other, { note: 'slower' }, 1, {});
    expect(await keepOn(one, { minutes: 7 })).toEqual({ kind: 'kept', revision: 3 });
    expect(await stored()).toMatchObject({ minutes: 7, note: 'slower' });
  });

  test('asks where both changed the same, and throws neither away', async () => {
    const [one, other] = [await page(), await page()];
    await keepOn(one);
    await keepOn(other, { note: 'theirs' }, 1, {});
    expect(await keepOn(one, { note: 'mine' })).toEqual({ kind: 'refused', message: '' });
    expect(await stored()).toMatchObject({ note: 'theirs', revision: 2 });
    expect(one.waitingAt(PATH)).toMatchObject({ fields: { note: 'mine' } });
    expect(count()).toBe(1);
  });

  test('lets go of what was taken out meanwhile', async () => {
    const here = await page();
    await keepOn(here);
    await deleteStint(open.db, 'madehere1');
    expect((await keepOn(here, { minutes: 9 })).kind).toBe('refused');
    expect(count()).toBe(0);
    expect(await listStints(open.db)).toEqual([]);
  });

  test('says where a browser keeps nothing, and still sends it', async () => {
    const here = await page();
    room = 0;
    arrives = false;
    expect(await keepOn(here)).toEqual({ kind: 'waiting' });
    expect([here.outbox.lasting, here.outbox.waiting]).toEqual([false, 1]);
    arrives = true;
    expect(await keepOn(here, { minutes: 5 })).toEqual({ kind: 'kept', revision: 1 });
    expect(await stored()).toMatchObject({ minutes: 5 });
  });

  describe('answers to one card that was dealt again and again', () => {
    const answer = (on: Page, seen: number) =>
      on.send({
        path: '/api/cards',
        method: 'POST',
        what: 'This card’s answer',
        fields: { id: 'a-card', right: true, seen, answer: `the-answer-${seen}` },
      });
    const seen = async () =>
      (await sql<{ seen: number }>`select seen from card`.execute(open.db)).rows[0]?.seen;

    test('arrive in the order in which they were given, the first ones late', async () => {
      const here = await page();
      arrives = false;
      for (const time of [0, 1]) expect(await answer(here, time)).toEqual({ kind: 'waiting' });
      arrives = true;
      expect(await answer(here, 2)).toEqual({ kind: 'kept', revision: null });
      expect([await seen(), here.outbox.waiting]).toEqual([3, 0]);
    });

    test('by the next page too, whatever the browser’s store makes of their order', async () => {
      const here = await page();
      arrives = false;
      for (const time of [0, 1, 2]) await answer(here, time);
      storage = Object.fromEntries(Object.entries(storage).reverse());
      arrives = true;
      const next = await page();
      let kept = 0;
      const all = new Promise<void>((resolve) => {
        next.onKept('/api/cards', () => ++kept === 3 && resolve());
      });
      next.openOutbox();
      await all;
      expect([await seen(), count()]).toEqual([3, 0]);
    });
  });

  test('sends a sound after what it belongs to, and once that has arrived only it', async () => {
    const here = await page();
    hears = false;
    const sending = { path: PATH, fields: STINT, revision: 0, what: 'The take' };
    const sent = await here.send({ ...sending, sound: new Blob(['RIFF']) });
    expect(sent).toEqual({ kind: 'waiting' });
    expect([await stored(), sounds]).toMatchObject([{ revision: 1 }, []]);
    hears = true;
    const heard = new Promise<void>((resolve) => here.onKept('/api/stints', resolve));
    here.openOutbox();
    await heard;
    expect([sounds, await stored()]).toMatchObject([[`${PATH}/sound`], { revision: 1 }]);
    expect(here.outbox.waiting).toBe(0);
  });

  test('waits where the server asks for its passcode again, and says so', async () => {
    const here = await page();
    vi.stubGlobal('fetch', async () => new Response('{}', { status: 401 }));
    expect(await keepOn(here)).toEqual({ kind: 'waiting' });
    expect([here.outbox.away, count()]).toEqual(['locked', 1]);
    vi.stubGlobal('fetch', request);
    expect(await keepOn(here)).toEqual({ kind: 'kept', revision: 1 });
    expect(here.outbox.away).toBe('no');
  });

  test('throws away what cannot be read of it', async () => {
    storage['corvel:out:/api/stints/broken'] = '{"path":';
    const here = await page();
    here.openOutbox();
    expect(here.outbox.waiting).toBe(0);
    expect(count()).toBe(0);
  });
});

/** A sitting, from its cards to what is sent of it. */
import { STANDARD_NECK } from 'corvel-core';
import type { DrillAnswer, DrillKind } from '$core/drills/kinds';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { DrillCard } from './cards';
import { createSitting } from './sitting.svelte';

/** What went to the server, by its address. */
let sent: { readonly path: string; readonly fields: Record<string, unknown> }[];

/** Until what was sent has arrived. */
const rest = () => vi.advanceTimersByTimeAsync(0);

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 });
  sent = [];
  vi.stubGlobal('fetch', (path: string, { body = 'null' }: { readonly body?: string }) => {
    sent.push({ path, fields: JSON.parse(body) as Record<string, unknown> });
    return Promise.resolve(Response.json(path.startsWith('/api/stints/') ? { revision: 1 } : {}));
  });
});
afterEach(async () => {
  await rest();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const TEXT = { c: { title: 'Two Five', text: 'key: C\n| Dm7 | G7 | Cmaj7 |' } };
/** A card that no test has answered: what waits for the server is not asked again. */
let dealt = 0;
const card = (kind: DrillKind, changed: Partial<DrillCard> = {}): DrillCard => ({
  id: `card-${(dealt += 1)}`,
  kind,
  chart: null,
  zone: { low: 5, high: 8 },
  seed: 1,
  seen: 2,
  ...changed,
});
const sit = (...cards: readonly DrillCard[]) =>
  createSitting(() => ({ cards, texts: TEXT, neck: STANDARD_NECK }));
const answerOf = (sitting: ReturnType<typeof sit>): DrillAnswer => sitting.drill?.answer ?? {};
const stints = () => sent.filter(({ path }) => path.startsWith('/api/stints/'));

describe('an answer', () => {
  test('in places is chosen and taken back, until it is given', () => {
    const sitting = sit(card('find-degree'));
    const wanted = answerOf(sitting).places ?? [];
    const [first = { string: 1, fret: 5 }] = wanted;
    sitting.toggle(first);
    sitting.toggle(first);
    expect(sitting.places).toEqual([]);
    for (const place of wanted) sitting.toggle(place);
    expect([sitting.isChosen(first), sitting.answered]).toEqual([true, false]);
    sitting.answer({ places: sitting.places });
    expect([sitting.answered, sitting.right]).toEqual([true, true]);
    sitting.toggle(first);
    sitting.answer({ places: [] });
    expect([sitting.places.length, sitting.right, sitting.outcome.length]).toEqual([
      wanted.length,
      true,
      1,
    ]);
  });

  test('one place too many is wrong', () => {
    const sitting = sit(card('find-degree'));
    sitting.answer({ places: [...(answerOf(sitting).places ?? []), { string: 1, fret: 15 }] });
    expect(sitting.right).toBe(false);
  });

  test.each(['name-note', 'name-degree', 'half-step-ahead', 'name-box'] as const)(
    '%s is chosen by its word, and one of its options is right',
    (kind) => {
      const right = sit(card(kind)).options.filter((option) => {
        const sitting = sit(card(kind));
        sitting.toggle({ string: 1, fret: 5 });
        expect(sitting.places).toEqual(
          sitting.drill?.asks === 'places' ? [{ string: 1, fret: 5 }] : [],
        );
        sitting.choose(option);
        return sitting.right;
      });
      const { drill, options } = sit(card(kind));
      if (drill?.asks === 'places') expect(options).toEqual([]);
      else expect(right).toHaveLength(1);
    },
  );

  test('a note has all twelve to choose from', () => {
    expect(sit(card('name-note')).options).toEqual('C Db D Eb E F Gb G Ab A Bb B'.split(' '));
  });

  test('goes to the server with the card as it was dealt', async () => {
    const sitting = sit(card('name-note'));
    sitting.answer({});
    await rest();
    expect(sent).toMatchObject([
      { path: '/api/cards', fields: { id: sitting.card?.id, right: false, seen: 2 } },
    ]);
    expect(sent[0]?.fields['answer']).toMatch(/^.{8,}$/u);
  });
});

describe('a sitting', () => {
  test('goes from card to card, each begun anew, and ends after the last', () => {
    const sitting = sit(card('find-degree'), card('name-note'));
    expect([sitting.count, sitting.index, sitting.card?.kind]).toEqual([2, 0, 'find-degree']);
    sitting.toggle({ string: 1, fret: 5 });
    sitting.answer({ places: [] });
    sitting.next();
    expect([sitting.index, sitting.card?.kind]).toEqual([1, 'name-note']);
    expect([sitting.answered, sitting.places.length, sitting.right]).toEqual([false, 0, false]);
    sitting.answer({});
    sitting.next();
    expect([sitting.card, sitting.drill, sitting.options.length]).toEqual([null, null, 0]);
    sitting.answer({});
    sitting.choose('C');
    expect(sitting.outcome.map(({ right }) => right)).toEqual([false, false]);
  });

  test('asks of the chords of its chart, and in general where that is not there', () => {
    const asked = (chart: string | null) =>
      Array.from(
        { length: 12 },
        (_, seed) => sit(card('spell-chord', { chart, seed })).drill?.prompt,
      );
    const ofChart = asked('c').join(' ');
    for (const prompt of asked('c')) expect(prompt).toMatch(/Dm7|G7|Cmaj7/u);
    expect(asked('gone')).toEqual(asked(null));
    expect(asked(null).join(' ')).not.toBe(ofChart);
  });

  test('of half a minute is a stint, which grows with each answer', async () => {
    const sitting = sit(card('name-note', { chart: 'c' }), card('name-note'));
    await vi.advanceTimersByTimeAsync(29_990);
    sitting.answer(answerOf(sitting));
    await rest();
    expect(stints()).toEqual([]);
    sitting.next();
    await vi.advanceTimersByTimeAsync(15_010);
    sitting.answer({});
    await rest();
    expect(stints()).toMatchObject([
      {
        fields: {
          chart: 'c',
          exercise: 'drills',
          zone: { low: 5, high: 8 },
          minutes: 0.75,
          tempo: 1,
          tempoFrom: 1,
          asked: 2,
          landed: 1,
        },
      },
    ]);
    await vi.advanceTimersByTimeAsync(15_000);
    sitting.end();
    await rest();
    expect(stints().at(-1)?.path).toBe(stints()[0]?.path);
    expect(stints().at(-1)?.fields).toMatchObject({ minutes: 1, asked: 2 });
  });

  test('of exactly half a minute is one, and of no answer none', async () => {
    const sitting = sit(card('name-note'));
    await vi.advanceTimersByTimeAsync(30_000);
    sitting.end();
    await rest();
    expect(stints()).toEqual([]);
    sitting.answer(answerOf(sitting));
    await rest();
    expect(stints()).toMatchObject([{ fields: { chart: 'general', minutes: 0.5, landed: 1 } }]);
  });

  test('does not ask again what was answered here while the server was away', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')));
    const sitting = sit(card('name-note', { id: 'kept-here' }));
    sitting.answer({});
    await rest();
    const again = sit(
      card('name-note', { id: 'kept-here' }),
      card('name-note', { id: 'kept-here', seen: 3 }),
    );
    expect(again.count).toBe(1);
    expect(again.card?.seen).toBe(3);
  });
});

/** A chart being edited, against a server that holds one behind a network that comes and goes. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createDocument } from './document.svelte';

type Network = 'up' | 'away' | 'late' | 'locked' | 'ill' | 'refuses';

let network: Network;
/** What stands on the server, and what was sent there. */
let stands: { text: string; plan: string; revision: number };
let sent: { readonly text: string; readonly revision: number }[];
/** How often it was asked how the chart stands. */
let asked: number;
/** Held until it is let go, where a test wants an answer to take its time. */
let gate: Promise<void>;

const REFUSALS: Partial<Record<Network, number>> = { locked: 401, ill: 500, refuses: 422 };

async function request(path: string, init: { method: string; body?: string }): Promise<Response> {
  if (network === 'away') throw new TypeError('Failed to fetch');
  const body = JSON.parse(init.body ?? '{}') as typeof stands;
  if (init.method === 'PUT' && path === '/api/charts/c') sent.push(body);
  await gate;
  if (network === 'late') throw new DOMException('late', 'TimeoutError');
  const refused = REFUSALS[network];
  if (refused !== undefined)
    return Response.json({ error: { code: 'no', message: 'Not this.' } }, { status: refused });
  if (init.method === 'GET') {
    asked += 1;
    return Response.json(stands);
  }
  if (path !== '/api/charts/c') return Response.json({ revision: 1 });
  if (body.revision !== stands.revision)
    return Response.json(
      { error: { code: 'conflict', message: 'Changed elsewhere.' }, current: stands },
      { status: 409 },
    );
  const { text, plan, revision } = body;
  stands = { text, plan, revision: revision + 1 };
  return Response.json({ revision: revision + 1 });
}

const open = () => createDocument('c', stands);
const pass = (milliseconds: number) => vi.advanceTimersByTimeAsync(milliseconds);
/** Another device saves. */
function savedElsewhere(text: string) {
  stands = { text, plan: stands.plan, revision: stands.revision + 1 };
}

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 });
  vi.stubGlobal('fetch', request);
  [network, stands, sent, asked, gate] = [
    'up',
    { text: '| C |', plan: '{}', revision: 4 },
    [],
    0,
    Promise.resolve(),
  ];
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('undoing', () => {
  test('takes back a burst of one group at once, and what came a second later by itself', async () => {
    const chart = open();
    chart.edit({ text: 'a' }, 'typing');
    await pass(999);
    chart.edit({ text: 'ab' }, 'typing');
    await pass(1_000);
    chart.edit({ text: 'abc' }, 'typing');
    chart.undo();
    expect(chart.text).toBe('ab');
    chart.undo();
    expect(chart.text).toBe('| C |');
    expect([chart.canUndo, chart.canRedo]).toEqual([false, true]);
    chart.undo();
    chart.redo();
    expect(chart.text).toBe('ab');
    chart.redo();
    chart.redo();
    expect([chart.text, chart.canRedo]).toEqual(['abc', false]);
    chart.undo();
    expect(chart.text).toBe('ab');
  });

  test('keeps groups apart, and edits of none', () => {
    const chart = open();
    chart.edit({ text: 'a' }, 'one');
    chart.edit({ text: 'b' }, 'other');
    chart.edit({ text: 'c' });
    chart.edit({ text: 'd' });
    const back = ['d', 'c', 'b', 'a', '| C |'].map(() => {
      const { text } = chart;
      chart.undo();
      return text;
    });
    expect(back).toEqual(['d', 'c', 'b', 'a', '| C |']);
  });

  test('what changes nothing is no edit; an edit ends what could be done again', () => {
    const chart = open();
    chart.edit({ text: '| C |', plan: '{}' });
    expect([chart.canUndo, chart.saveState]).toEqual([false, 'saved']);
    chart.edit({ plan: '{"x":1}' });
    chart.undo();
    expect([chart.plan, chart.canRedo]).toEqual(['{}', true]);
    chart.edit({ text: 'b' });
    expect(chart.canRedo).toBe(false);
  });

  test('what is typed after something was done again is an edit of its own', () => {
    const chart = open();
    chart.edit({ text: 'a' }, 'typing');
    chart.undo();
    chart.redo();
    chart.edit({ text: 'ab' }, 'typing');
    chart.undo();
    expect(chart.text).toBe('a');
  });
});

describe('saving', () => {
  test('waits for the hand to rest, and goes once', async () => {
    const chart = open();
    chart.edit({ text: 'a' });
    await pass(300);
    chart.edit({ text: 'ab' });
    await pass(349);
    expect([sent.length, chart.saveState]).toEqual([0, 'saving']);
    await pass(1);
    expect(sent).toMatchObject([{ text: 'ab', revision: 4 }]);
    expect(chart.saveState).toBe('saved');
    await pass(10_000);
    expect(sent).toHaveLength(1);
  });

  test('what is typed meanwhile goes next, on what has been saved', async () => {
    const chart = open();
    let letGo: () => void = () => undefined;
    gate = new Promise((resolve) => (letGo = resolve));
    chart.edit({ text: 'a' });
    await pass(350);
    chart.edit({ text: 'ab' });
    await pass(5_000);
    expect(sent).toHaveLength(1);
    letGo();
    await pass(349);
    expect([sent.length, chart.saveState]).toEqual([1, 'saving']);
    await pass(1);
    expect(sent[1]).toMatchObject({ text: 'ab', revision: 5 });
    expect([stands.text, chart.saveState]).toEqual(['ab', 'saved']);
  });

  test.each([
    ['away', 'offline', ''],
    ['ill', 'offline', 'Not this.'],
    ['late', 'waiting', ''],
    ['locked', 'locked', ''],
  ] as const)(
    'where the server is %s it is tried again after two seconds',
    async (how, says, why) => {
      const chart = open();
      network = how;
      chart.edit({ text: 'a' });
      await pass(350);
      expect([chart.saveState, chart.refusal]).toEqual([says, why]);
      network = 'up';
      await pass(1_999);
      expect(stands.text).toBe('| C |');
      await pass(1);
      expect([stands.text, chart.saveState]).toEqual(['a', 'saved']);
    },
  );

  test('what is refused is said, and not sent again until it is changed', async () => {
    const chart = open();
    network = 'refuses';
    chart.edit({ text: 'a' });
    await pass(20_000);
    expect([sent.length, chart.saveState, chart.refusal]).toEqual([1, 'refused', 'Not this.']);
    network = 'up';
    chart.edit({ text: 'b' });
    await pass(350);
    expect(chart.saveState).toBe('saved');
  });

  test('as the page goes, the last keystroke is sent behind a save that is under way', async () => {
    const chart = open();
    chart.leave();
    expect(sent).toHaveLength(0);
    chart.edit({ text: 'a' });
    chart.leave();
    expect(sent).toMatchObject([{ text: 'a', revision: 4 }]);
    await pass(0);
    const next = open();
    gate = new Promise(() => undefined);
    next.edit({ text: 'b' });
    await pass(350);
    next.edit({ text: 'bc' });
    next.leave();
    expect(sent.slice(1).map(({ text, revision }) => [text, revision])).toEqual([
      ['b', 5],
      ['bc', 6],
    ]);
  });
});

describe('another version on the server', () => {
  async function inConflict() {
    const chart = open();
    savedElsewhere('theirs');
    chart.edit({ text: 'mine' });
    await pass(350);
    expect([chart.saveState, chart.theirs?.text]).toEqual(['conflict', 'theirs']);
    return chart;
  }

  test('is asked about, and nothing is sent until then', async () => {
    const chart = await inConflict();
    chart.edit({ text: 'mine too' });
    await pass(10_000);
    chart.leave();
    expect([sent.length, chart.saveState, stands.text]).toEqual([1, 'conflict', 'theirs']);
  });

  test('mine is saved over it, and it is one undo away', async () => {
    const chart = await inConflict();
    chart.keepMine();
    await pass(350);
    expect([stands.text, chart.saveState, chart.theirs]).toEqual(['mine', 'saved', null]);
    chart.undo();
    expect(chart.text).toBe('theirs');
  });

  test('theirs is taken, and mine is one undo away', async () => {
    const chart = await inConflict();
    chart.takeTheirs();
    await pass(5_000);
    expect([chart.text, chart.saveState, sent.length]).toEqual(['theirs', 'saved', 1]);
    chart.undo();
    await pass(350);
    expect([stands.text, stands.revision]).toEqual(['mine', 6]);
  });

  test('both are kept, mine as a chart of its own; neither goes while the server is away', async () => {
    const chart = await inConflict();
    network = 'away';
    expect(await chart.keepBoth()).toBeNull();
    expect([chart.text, chart.saveState]).toEqual(['mine', 'conflict']);
    network = 'up';
    expect(await chart.keepBoth()).toMatch(/./u);
    expect([chart.text, chart.saveState]).toEqual(['theirs', 'saved']);
  });

  test('of the same words, or one’s own of which no answer came, is no question', async () => {
    const chart = open();
    savedElsewhere('mine');
    chart.edit({ text: 'mine' });
    await pass(350);
    expect([chart.saveState, chart.theirs]).toEqual(['saved', null]);
    network = 'late';
    chart.edit({ text: 'next' });
    await pass(350);
    // It has arrived, though nobody said so.
    savedElsewhere('next');
    chart.edit({ text: 'next one' });
    network = 'up';
    await pass(5_000);
    expect([stands.text, chart.saveState]).toEqual(['next one', 'saved']);
  });

  test('without a conflict there is nothing to choose', async () => {
    const chart = open();
    chart.keepMine();
    chart.takeTheirs();
    expect([await chart.keepBoth(), chart.canUndo]).toEqual([null, false]);
  });
});

describe('following another device', () => {
  test('takes over what is newer, which is one undo away; not what is known', async () => {
    const chart = open();
    expect(await chart.follow(4)).toBe(false);
    expect(asked).toBe(0);
    expect(await chart.follow(null)).toBe(false);
    expect(asked).toBe(1);
    savedElsewhere('theirs');
    expect(await chart.follow(5)).toBe(true);
    expect([chart.text, chart.saveState, chart.canRedo]).toEqual(['theirs', 'saved', false]);
    chart.undo();
    expect(chart.text).toBe('| C |');
  });

  test('of the same words only the revision is new', async () => {
    const chart = open();
    chart.edit({ text: 'a' });
    await pass(350);
    chart.undo();
    await pass(350);
    savedElsewhere('| C |');
    expect(await chart.follow(null)).toBe(false);
    expect(chart.canRedo).toBe(true);
    chart.redo();
    await pass(350);
    expect([stands.text, chart.saveState]).toEqual(['a', 'saved']);
  });

  test('leaves alone what is being typed, also while the answer is on its way', async () => {
    const chart = open();
    savedElsewhere('theirs');
    const following = chart.follow(5);
    chart.edit({ text: 'mine' });
    expect(await following).toBe(false);
    expect(await chart.follow(5)).toBe(false);
    expect(asked).toBe(1);
    expect(chart.text).toBe('mine');
    network = 'away';
    expect(await open().follow(9)).toBe(false);
  });
});

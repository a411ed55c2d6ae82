/** A lick being written, against a server that holds one behind a network that comes and goes. */
import { BEAT, STANDARD_NECK } from 'corvel-core';
import { toast } from 'svelte-sonner';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createLickEditing } from './editing.svelte';
import { lickSaveRequest, type StoredLick } from './messages';

let network: 'up' | 'away' | 'ill' | 'refuses' | 'unheard';
let stands: StoredLick;
let sent: { readonly title: string; readonly revision: number }[];
let gate: Promise<void>;
/** Two ways out of a conflict, as they are shown. */
interface Question {
  readonly action: { readonly onClick: () => void };
  readonly cancel: { readonly onClick: () => void };
}

/** What the player was asked, and what was said to him. */
let questions: Question[];
let said: unknown[];

const LICK: StoredLick = {
  id: 'madehere1',
  revision: 3,
  title: 'Turn',
  tags: ['ii–V'],
  source: 'mine',
  chart: '| Dm7 | G7 |',
  notes: [{ beat: 0, beats: 1, string: 3, fret: 5, techniques: [] }],
  takeOf: null,
  sound: null,
  made: '',
};

async function request(path: string, init: { body: string }): Promise<Response> {
  if (network === 'away') throw new TypeError('Failed to fetch');
  const { revision, ...lick } = lickSaveRequest.parse(JSON.parse(init.body));
  expect(path).toBe(`/api/licks/${LICK.id}`);
  sent.push({ title: lick.title, revision });
  await gate;
  if (network === 'ill') return new Response('', { status: 500 });
  if (network === 'refuses')
    return Response.json({ error: { message: 'Too long.' } }, { status: 422 });
  if (revision !== stands.revision) {
    const { title, notes } = stands;
    const same = title === lick.title && JSON.stringify(notes) === JSON.stringify(lick.notes);
    return Response.json(same ? { revision: stands.revision } : { current: stands }, {
      status: same ? 200 : 409,
    });
  }
  stands = { ...stands, ...lick, revision: revision + 1 };
  if (network === 'unheard') throw new TypeError('Failed to fetch');
  return Response.json({ revision: stands.revision });
}

const open = () => createLickEditing(stands, () => STANDARD_NECK);
const pass = (milliseconds: number) => vi.advanceTimersByTimeAsync(milliseconds);
/** Until a message has been shown: what draws it is loaded first. */
const shown = () => vi.dynamicImportSettled();

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 });
  vi.stubGlobal('fetch', request);
  [network, stands, sent, gate, questions, said] = ['up', LICK, [], Promise.resolve(), [], []];
  vi.spyOn(toast, 'message').mockImplementation((_, options) => {
    questions.push(options as unknown as Question);
    return 1;
  });
  vi.spyOn(toast, 'error').mockImplementation((text) => said.push(text));
});
afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('undoing', () => {
  test('letter after letter in one field is one change; another field or a note is another', () => {
    const lick = open();
    lick.write('title', 'T');
    lick.write('title', 'Tu');
    lick.write('source', 'm');
    lick.write('source', 'm');
    lick.write('title', 'Tur');
    const back = [1, 2, 3].map(() => {
      const { title, source } = lick.lick;
      lick.undo();
      return [title, source];
    });
    expect(back).toEqual([
      ['Tur', 'm'],
      ['Tu', 'm'],
      ['Tu', 'mine'],
    ]);
    expect([lick.lick.title, lick.canUndo, lick.canRedo]).toEqual(['Turn', false, true]);
    lick.redo();
    lick.write('title', 'Tun');
    expect(lick.canRedo).toBe(false);
    lick.undo();
    expect(lick.lick.title).toBe('Tu');
  });

  test('nothing is undone before the first change, nor done again after the last', () => {
    const lick = open();
    lick.undo();
    lick.redo();
    expect([lick.lick.title, lick.state]).toEqual(['Turn', 'saved']);
  });

  test('a note that is typed is one change; moving the cursor is none', () => {
    const lick = open();
    lick.point(BEAT, 2);
    expect(lick.canUndo).toBe(false);
    lick.write('title', 'T');
    expect(lick.type('7')).toBe(true);
    lick.write('title', 'Tu');
    expect(lick.notes.map(({ beat, string, fret }) => [beat, string, fret])).toEqual([
      [0, 3, 5],
      [BEAT, 2, 7],
    ]);
    lick.undo();
    expect([lick.lick.title, lick.notes.length]).toEqual(['T', 2]);
    lick.undo();
    expect([lick.lick.notes, lick.grid.notes.length]).toEqual([LICK.notes, 1]);
    lick.redo();
    expect([lick.grid.notes.length, lick.type('no key')]).toEqual([2, false]);
  });

  test('goes back two hundred changes and one', () => {
    const lick = open();
    for (let count = 0; count < 250; count++) lick.change({ title: String(count) });
    for (let count = 0; count < 250; count++) lick.undo();
    expect(lick.lick.title).toBe('48');
  });
});

describe('what is read of it', () => {
  test('chords that cannot be read leave those that could, and say why', () => {
    const lick = open();
    expect([lick.chart?.chords.length, lick.problem]).toEqual([2, null]);
    lick.write('chart', '| Dm7 | Qx7 |');
    expect(lick.chart?.chords.map(({ chord }) => chord.symbol)).toEqual(['Dm7', 'G7']);
    expect(lick.problem).toContain('Qx7');
  });

  test('the grid ends with the chords, or with the last note where that is later', () => {
    const lick = open();
    expect(lick.frame).toMatchObject({ bar: 4 * BEAT, end: 8 * BEAT });
    lick.change({ notes: [{ beat: 9, beats: 2, string: 1, fret: 3, techniques: [] }] });
    expect(lick.frame.end).toBe(11 * BEAT);
    lick.change({ chart: 'time: 3/4\n| C |' });
    expect(lick.frame.bar).toBe(3 * BEAT);
  });

  test('the list’s row is the same while notes alone are written', () => {
    const lick = open();
    const row = lick.inList;
    lick.change({ notes: [] });
    expect(lick.inList).toBe(row);
    lick.change({ tags: ['blues'] });
    expect(lick.inList).toMatchObject({ id: LICK.id, tags: ['blues'] });
  });
});

describe('saving', () => {
  test('waits for the hand to rest, and what is typed meanwhile goes next', async () => {
    const lick = open();
    lick.change({ title: 'a' });
    await pass(599);
    expect([sent.length, lick.state]).toEqual([0, 'saving']);
    let letGo: () => void = () => undefined;
    gate = new Promise((resolve) => (letGo = resolve));
    await pass(1);
    lick.change({ title: 'b' });
    await pass(5_000);
    expect(sent).toEqual([{ title: 'a', revision: 3 }]);
    letGo();
    await pass(600);
    expect(sent[1]).toEqual({ title: 'b', revision: 4 });
    await pass(5_000);
    expect([stands.title, lick.state, sent.length]).toEqual(['b', 'saved', 2]);
  });

  test.each(['away', 'ill'] as const)('where the server is %s it is tried again', async (how) => {
    const lick = open();
    network = how;
    lick.change({ title: 'a' });
    await pass(600);
    expect(lick.state).toBe('away');
    network = 'up';
    await pass(2_999);
    expect(stands.title).toBe('Turn');
    await pass(1);
    expect([stands.title, lick.state]).toEqual(['a', 'saved']);
  });

  test('what is refused is said', async () => {
    const lick = open();
    network = 'refuses';
    lick.change({ title: 'a' });
    await pass(600);
    await shown();
    expect([said, lick.state]).toEqual([['Too long.'], 'away']);
  });

  test('as the page goes, what waits is sent; nothing where all is kept', async () => {
    const lick = open();
    lick.leave();
    expect(sent).toEqual([]);
    lick.change({ title: 'a' });
    lick.leave();
    await pass(0);
    expect([stands.title, sent.length]).toEqual(['a', 1]);
    network = 'away';
    lick.change({ title: 'b' });
    await pass(700);
    network = 'up';
    lick.leave();
    await pass(0);
    expect(stands.title).toBe('b');
  });
});

describe('what was sent and not answered', () => {
  test('is one’s own: what was written since goes on from it, and nothing is asked', async () => {
    const lick = open();
    network = 'unheard';
    lick.change({ title: 'a' });
    await pass(600);
    expect([stands.title, lick.state]).toEqual(['a', 'away']);
    network = 'up';
    lick.change({ title: 'b' });
    await pass(5_000);
    await shown();
    expect([stands.title, lick.state, questions]).toEqual(['b', 'saved', []]);
  });

  test('as the page goes the last change is sent behind a save that is under way', async () => {
    const lick = open();
    let letGo: () => void = () => undefined;
    gate = new Promise((resolve) => (letGo = resolve));
    lick.change({ title: 'a' });
    await pass(600);
    lick.leave();
    expect(sent).toHaveLength(1);
    lick.change({ title: 'b' });
    lick.leave();
    expect(sent).toEqual([
      { title: 'a', revision: 3 },
      { title: 'b', revision: 4 },
    ]);
    letGo();
    await pass(5_000);
    await shown();
    // A page that stays sends it once more, which the server knows for the same.
    expect([stands.title, questions]).toEqual(['b', []]);
  });
});

describe('another version on the server', () => {
  async function inConflict() {
    const lick = open();
    stands = { ...LICK, title: 'theirs', revision: 4 };
    lick.change({ title: 'mine' });
    await pass(600);
    await shown();
    return lick;
  }

  test('is asked about, and nothing is sent until then', async () => {
    const lick = await inConflict();
    lick.change({ title: 'mine too' });
    await pass(10_000);
    lick.leave();
    await pass(0);
    expect([lick.state, sent.length, stands.title]).toEqual(['conflict', 1, 'theirs']);
  });

  test('theirs is taken, and mine is one undo away', async () => {
    const lick = await inConflict();
    questions[0]?.action.onClick();
    expect([lick.lick.title, lick.state]).toEqual(['theirs', 'saved']);
    lick.undo();
    await pass(600);
    expect([stands.title, stands.revision]).toEqual(['mine', 5]);
  });

  test('mine is saved over it, and it is one undo away', async () => {
    const lick = await inConflict();
    questions[0]?.cancel.onClick();
    expect(lick.state).toBe('saving');
    await pass(1);
    expect([stands.title, lick.state]).toEqual(['mine', 'saved']);
    lick.undo();
    expect(lick.lick.title).toBe('theirs');
  });
});

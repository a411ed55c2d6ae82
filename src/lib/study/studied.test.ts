/** A chart as its screens study it: what is shown of a text, where the player is, what is kept of it. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { studyOf } from '$tests/study';
import { readPlan } from './plan';

/** What was kept of how the chart is looked at. */
let looks: { readonly oneOctave?: boolean; readonly strings?: readonly number[] | null }[];

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 });
  looks = [];
  vi.stubGlobal('fetch', (path: string, { body = '{}' }: { readonly body?: string }) => {
    if (path === '/api/charts/c/view') looks.push(JSON.parse(body) as (typeof looks)[number]);
    return Promise.resolve(Response.json({ revision: 2 }));
  });
});
afterEach(async () => {
  await vi.advanceTimersByTimeAsync(5_000);
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const TEXT = 'title: Low Tide\nkey: C\n| Dm7 | G7 | Cmaj7 | Am7 |';

describe('what is shown of a text', () => {
  test('that can be read is its chart, with its key and title', () => {
    const study = studyOf(TEXT);
    expect([study.title, study.planned.length, study.shownInstead]).toEqual(['Low Tide', 4, null]);
    expect(study.problems).toEqual([]);
    expect(studyOf('| C |').title).toBe('Untitled');
  });

  test('that can no more be read is what could be last', () => {
    const study = studyOf(TEXT);
    expect(study.chart?.chords.length).toBe(4);
    study.document.edit({ text: `${TEXT} Qx |` });
    expect([study.chart?.chords.length, study.shownInstead]).toEqual([4, 'last readable']);
    expect(study.problems).toHaveLength(1);
    expect(study.unreadable.size).toBe(0);
    study.document.edit({ text: '| Em7 |' });
    expect([study.chart?.chords.length, study.shownInstead]).toEqual([1, null]);
  });

  test('that never could be read whole is the part of it that can, with the bars that cannot', () => {
    const study = studyOf('| Dm7 | Qx | Cmaj7 |');
    expect([study.planned.length, study.shownInstead]).toEqual([2, 'in part']);
    expect([...study.unreadable.keys()]).toEqual([2]);
  });
});

describe('where the player is', () => {
  test('steps go round the ends of the form', () => {
    const study = studyOf(TEXT);
    study.step(-1);
    expect([study.nowIndex, study.now?.chord.symbol]).toEqual([3, 'Am7']);
    study.step(1);
    expect([study.nowIndex, study.next?.chord.symbol]).toEqual([0, 'G7']);
    study.step(2);
    expect(study.nowIndex).toBe(2);
  });

  test('is within the chart, however short that becomes', () => {
    const study = studyOf(TEXT, { place: { index: 9, zone: null } });
    expect(study.nowIndex).toBe(3);
    study.document.edit({ text: '| C | F |' });
    expect(study.nowIndex).toBe(1);
    study.go(-3);
    expect(study.nowIndex).toBe(0);
    const empty = studyOf('');
    empty.step(1);
    expect([empty.nowIndex, empty.now, empty.next]).toEqual([0, null, null]);
  });
});

describe('the zone', () => {
  const kept = (study: ReturnType<typeof studyOf>) => readPlan(study.document.plan).zone;

  test('is the first of the key until one is chosen, and the address comes before both', () => {
    expect(studyOf(TEXT).zones).toHaveLength(5);
    expect(studyOf(TEXT).zones).toContainEqual(expect.objectContaining(studyOf(TEXT).zone));
    const study = studyOf(TEXT, { place: { index: 0, zone: { low: 7, high: 10 } } });
    expect(study.zone).toMatchObject({ low: 7, high: 10 });
    expect(kept(study)).toBeNull();
    expect(studyOf('').zone).toMatchObject({ low: 2, high: 6 });
    expect(studyOf('').zones).toEqual([]);
  });

  test('under the hand is not kept until the hand lets go', () => {
    const study = studyOf(TEXT);
    study.keepZone();
    expect(study.document.canUndo).toBe(false);
    study.dragZone({ low: 8, high: 11 });
    expect([study.zone.low, kept(study)]).toEqual([8, null]);
    study.keepZone();
    expect(kept(study)).toMatchObject({ low: 8, high: 11 });
    expect(study.zone).toMatchObject({ low: 8, high: 11 });
  });

  test('that is chosen takes the place of the one under the hand, and stays on the neck', () => {
    const study = studyOf(TEXT);
    study.dragZone({ low: 8, high: 11 });
    study.chooseZone({ low: 3, high: 6 });
    expect(study.zone).toMatchObject({ low: 3, high: 6 });
    study.slideZone(2);
    expect(study.zone).toMatchObject({ low: 5, high: 8 });
    study.slideZone(-40);
    expect(study.zone.low).toBe(0);
    // Slid in one burst, it is undone at once.
    study.document.undo();
    expect(kept(study)).toBeNull();
  });
});

describe('how it is looked at', () => {
  test('the first look of a burst is kept at once, and the last when it is over', async () => {
    const study = studyOf(TEXT);
    study.look({ oneOctave: true });
    expect(looks).toHaveLength(1);
    study.look({ oneOctave: false });
    study.look({ oneOctave: true });
    study.look({ oneOctave: false });
    await vi.advanceTimersByTimeAsync(499);
    expect(looks).toHaveLength(1);
    await vi.advanceTimersByTimeAsync(1);
    expect(looks.map((look) => look.oneOctave)).toEqual([true, false]);
    await vi.advanceTimersByTimeAsync(5_000);
    expect(looks).toHaveLength(2);
    study.look({ oneOctave: true });
    expect(looks).toHaveLength(3);
  });

  test('goes out as the page is left, where it is not kept yet', () => {
    const study = studyOf(TEXT);
    study.leave();
    expect(looks).toEqual([]);
    study.look({ oneOctave: true });
    study.look({ oneOctave: false });
    study.leave();
    study.leave();
    expect(looks.map((look) => look.oneOctave)).toEqual([true, false]);
  });

  test('hides no strings for some that this neck has not', () => {
    expect(studyOf(TEXT, { view: { strings: [7, 8] } }).view.strings).toBeNull();
    expect(studyOf(TEXT, { view: { strings: [6, 7] } }).view.strings).toEqual([6, 7]);
  });

  test('a loop is seen as far as the chart has its bars', () => {
    const loop = (from: number, to: number) => {
      const study = studyOf(TEXT);
      study.setLoop({ from, to });
      return study.loop;
    };
    expect(loop(1, 3)).toEqual({ from: 1, to: 3 });
    expect(loop(3, 9)).toEqual({ from: 3, to: 4 });
    expect(loop(4, 6)).toBeNull();
    expect(studyOf(TEXT).loop).toBeNull();
    expect(studyOf('').loop).toBeNull();
  });
});

test('a plan that a newer Corvel wrote is looked at and not written over', () => {
  const newer = '{"version":99,"zone":{"low":5,"high":8}}';
  const study = studyOf(TEXT, { plan: newer });
  expect(study.newerPlan).toBe(true);
  study.chooseZone({ low: 3, high: 6 });
  expect(study.document.plan).toBe(newer);
  expect(studyOf(TEXT).newerPlan).toBe(false);
});

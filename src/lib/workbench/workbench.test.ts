import { SvelteMap } from 'svelte/reactivity';
import { describe, expect, test } from 'vitest';
import { dropOf, nearestAcross } from './bars';
import { commandOf, type Press } from './keys';
import { createWorkbench } from './workbench.svelte';

/** A bench over a chart, with keys to press on it; `under` is the bar drawn below every other. */
function bench(chart: string, under = 0) {
  const document = new SvelteMap([['text', chart]]);
  const workbench = createWorkbench({
    get text() {
      return document.get('text') ?? '';
    },
    edit: ({ text }) => document.set('text', text),
  });
  /** Presses a key, as "Shift ArrowRight"; whether it did anything. */
  const press = (...presses: readonly string[]): boolean =>
    presses.every((one) => {
      const held = one.split(' ');
      const event: Press = {
        key: held.at(-1) ?? '',
        shiftKey: held.includes('Shift'),
        altKey: held.includes('Alt'),
        ctrlKey: held.includes('Ctrl'),
        metaKey: held.includes('Meta'),
      };
      const command = commandOf(workbench, event, (down) => (down ? under : 0));
      command?.();
      return command !== null;
    });
  return { workbench, press, text: () => document.get('text') };
}

describe('the keys', () => {
  test('arrows walk over bar lines, Home and End to the ends, and Shift selects', () => {
    const { workbench, press } = bench('| C | F G | Am | Dm |', 3);
    press('ArrowRight', 'ArrowRight');
    expect(workbench.cursor).toEqual({ bar: 1, slot: 1 });
    press('ArrowRight', 'ArrowLeft');
    expect(workbench.cursor).toEqual({ bar: 1, slot: 1 });
    press('End');
    expect(workbench.cursor).toEqual({ bar: 3, slot: 0 });
    press('Home', 'Shift ArrowRight', 'Shift ArrowRight');
    expect(workbench.selection).toEqual({ from: 0, to: 2 });
    press('Home', 'ArrowDown');
    expect(workbench.selection).toEqual({ from: 3, to: 3 });
    press('Shift ArrowUp');
    expect(workbench.selection).toEqual({ from: 0, to: 3 });
  });

  test('a first letter types over the slot, Insert begins a bar, Enter takes what stands there', () => {
    const { workbench, press } = bench('| C | Ebm7 |');
    press('g');
    expect(workbench.typing).toMatchObject({ bar: 0, puts: 'over', text: 'g', begun: true });
    workbench.cancel();
    press('ArrowRight', 'Enter');
    expect(workbench.typing).toMatchObject({ bar: 1, puts: 'over', text: 'Ebm7', begun: false });
    workbench.cancel();
    press('Insert');
    expect(workbench.typing).toMatchObject({ bar: 2, puts: 'bar', text: '' });
  });

  test.each<[string, readonly string[], string]>([
    ['| C | F | G |', ['ArrowRight', 'Delete'], '| C | G |'],
    ['| C | F | G |', ['ArrowRight', 'Backspace'], '| C | G |'],
    ['| C | F | G |', ['Ctrl d'], '| C | C | F | G |'],
    ['| C | F | G |', ['Alt ArrowRight'], '| F | C | G |'],
    ['| C | F | G |', ['End', 'Alt ArrowLeft'], '| C | G | F |'],
    ['| C | F | G |', ['s'], '| C C | F | G |'],
    ['| C F | G |', ['>'], '| C / F | G |'],
    ['| C / F | G |', ['<'], '| C F | G |'],
    ['| C | F |', ['Ctrl a', 'r'], '|: C | F :|'],
    ['|: C | F | G :|', ['ArrowRight', '1'], '|: C | [1] F :| [2] G :|'],
    ['| C | F |', ['ArrowRight', 'm'], '| C |\n[A] | F |'],
  ])('%s, after %s', (before, keys, after) => {
    const { workbench, press, text } = bench(before);
    expect(press(...keys)).toBe(true);
    expect(workbench.refusal).toBe('');
    expect(text()?.trim()).toBe(after);
  });

  test.each(['x', 'j', 'Tab', 'Escape', 'Ctrl x', 'Ctrl g', 'Alt ArrowUp', 'Alt c', 'Meta s'])(
    '%s does nothing',
    (key) => {
      const { press, text } = bench('| C | F |');
      expect(press(key)).toBe(false);
      expect(text()).toBe('| C | F |');
    },
  );
});

describe('typing over the bars', () => {
  /** Types words one after another, each ended by a key that says where typing goes on. */
  function typed(
    chart: string,
    keys: readonly string[],
    words: readonly (readonly [
      string,
      Parameters<ReturnType<typeof createWorkbench>['commit']>[1],
    ])[],
  ) {
    const { workbench, press, text } = bench(chart);
    press(...keys);
    const taken = words.map(([word, then]) => workbench.commit(word, then));
    return { workbench, taken, text: text()?.trim() };
  }

  test('Enter ends it, Space goes on behind, | in the next bar, a new one after the last', () => {
    expect(typed('| C | F |', ['Enter'], [['Am', 'stop']]).text).toBe('| Am | F |');
    const behind = typed('| C | F |', ['Enter'], [['Am', 'behind']]);
    expect(behind.workbench.typing).toMatchObject({ bar: 0, slot: 1, puts: 'behind', text: '' });
    expect(behind.workbench.commit('Dm', 'stop')).toBe(true);
    expect(
      typed(
        '| C | F |',
        ['Enter'],
        [
          ['Am', 'behind'],
          ['Dm', 'stop'],
        ],
      ).text,
    ).toBe('| Am Dm | F |');
    expect(
      typed(
        '| C | F |',
        ['Enter'],
        [
          ['Am', 'bar'],
          ['Dm', 'bar'],
          ['G', 'stop'],
        ],
      ).text,
    ).toBe('| Am | Dm | G |');
  });

  test('behind a chord that another follows it goes on over that one', () => {
    const { workbench } = typed('| C F | G |', ['Enter'], [['Am', 'behind']]);
    expect(workbench.typing).toMatchObject({ bar: 0, slot: 1, puts: 'over', text: 'F' });
    expect(workbench.cursor).toEqual({ bar: 0, slot: 1 });
  });

  test('Tab goes on over the next chord, and back over the one before', () => {
    const on = typed('| C F | G |', ['Enter'], [['Am', 'next']]).workbench;
    expect(on.typing).toMatchObject({ bar: 0, slot: 1, puts: 'over', text: 'F' });
    const back = typed('| C F | G |', ['End', 'Enter'], [['Am', 'previous']]).workbench;
    expect(back.typing).toMatchObject({ bar: 0, slot: 1, text: 'F' });
  });

  test('a stroke gives the chord before it one more share', () => {
    const behind = typed(
      '| C F | G |',
      ['ArrowRight', 'Enter'],
      [
        ['F', 'behind'],
        ['/', 'stop'],
      ],
    );
    expect([behind.text, behind.workbench.cursor]).toEqual(['| C F / | G |', { bar: 0, slot: 1 }]);
    const on = typed(
      '| C F | G |',
      ['ArrowRight', 'Enter'],
      [
        ['F', 'behind'],
        ['/', 'behind'],
        ['Am', 'stop'],
      ],
    );
    expect(on.text).toBe('| C F / Am / | G |');
    const { workbench, text } = typed('| C F | G |', ['Enter'], [['/', 'stop']]);
    expect([text, workbench.cursor]).toEqual(['| C / F | G |', { bar: 0, slot: 0 }]);
  });

  test('the same again, or nothing, leaves the chart as it is', () => {
    const { workbench, taken, text } = typed('| C | F |', ['Enter'], [['C', 'stop']]);
    expect([taken, text, workbench.typing]).toEqual([[true], '| C | F |', null]);
    expect(typed('| C | F |', ['Enter'], [['', 'stop']]).text).toBe('| C | F |');
    const untouched = bench('|  C  |  F  |');
    untouched.press('Enter');
    untouched.workbench.commit('C', 'stop');
    expect(untouched.text()).toBe('|  C  |  F  |');
    expect(untouched.workbench.commit('Q', 'stop')).toBe(true);
  });

  test('small letters are chords; what is none is refused, and typing goes on', () => {
    expect(typed('| C | F |', ['Enter'], [['bbm7', 'stop']]).text).toBe('| Bbm7 | F |');
    const { workbench, taken, text } = typed('| C | F |', ['Enter'], [['Qx', 'stop']]);
    expect([taken, text]).toEqual([[false], '| C | F |']);
    expect(workbench.refusal).not.toBe('');
    expect(workbench.typing).toMatchObject({ bar: 0, slot: 0 });
  });

  test('the cursor stays within the bars: neither before the first nor behind the last', () => {
    const { workbench, press } = bench('| C | F |');
    press('ArrowLeft');
    expect(workbench.cursor).toEqual({ bar: 0, slot: 0 });
    press('End', 'ArrowRight');
    expect(workbench.cursor).toEqual({ bar: 1, slot: 0 });
    press('Shift ArrowLeft', 'Shift ArrowLeft');
    expect(workbench.selection).toEqual({ from: 0, to: 1 });
  });
});

describe('where bars lie', () => {
  const rows = [
    { bar: 0, left: 0, top: 100 },
    { bar: 1, left: 150, top: 100 },
    // Of the same row, however it is drawn.
    { bar: 2, left: 300, top: 104 },
    { bar: 3, left: 0, top: 140 },
    { bar: 4, left: 160, top: 140 },
    { bar: 5, left: 150, top: 180 },
    { bar: 6, left: 300, top: 180 },
  ];

  test.each([
    [0, true, 3],
    // The next row comes before the nearer column of the one after it.
    [1, true, 4],
    [2, true, 4],
    [5, false, 4],
    [4, false, 1],
    [3, false, 0],
    [1, false, 1],
    [5, true, 5],
    [9, true, 9],
  ])('from bar %i, down: %s, it is bar %i', (bar, down, to) => {
    expect(nearestAcross(rows, bar, down)).toBe(to);
  });

  const order = (...bars: readonly number[]) => bars.map((bar) => ({ id: `bar-${bar}`, bar }));

  test('a bar goes behind the one before it, or to the beginning of the section', () => {
    const one = { from: 0, to: 0 };
    expect(dropOf(order(4, 6, 5), 'bar-6', 4, one)).toEqual({
      picked: { from: 6, to: 6 },
      spot: { after: 4 },
    });
    expect(dropOf(order(6, 4, 5), 'bar-6', 4, one)).toEqual({
      picked: { from: 6, to: 6 },
      spot: { before: 4 },
    });
    expect(dropOf(order(4, 5), 'bar-6', 4, one)).toBeNull();
  });

  test('a bar of the selection takes all of it along, and stands behind none of it', () => {
    const selection = { from: 1, to: 2 };
    for (const [items, id] of [
      [order(0, 2, 3, 1), 'bar-1'],
      [order(0, 3, 2, 1), 'bar-1'],
      [order(0, 3, 1, 2), 'bar-2'],
    ] as const) {
      expect(dropOf(items, id, 0, selection)).toEqual({ picked: selection, spot: { after: 3 } });
    }
    expect(dropOf(order(2, 1, 0, 3), 'bar-1', 0, selection)).toEqual({
      picked: selection,
      spot: { before: 0 },
    });
    expect(dropOf(order(0, 1, 2, 4, 3), 'bar-4', 0, selection)?.picked).toEqual({ from: 4, to: 4 });
  });
});

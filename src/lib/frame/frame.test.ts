import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { type Actions, runShortcut, SHORTCUTS } from './shortcuts';
import { type Key, parseKey } from '$core/keys/keys';
import { headingInRoom, headingOf } from './strip';
import { formatTable } from '$lib/formats/tables';
import { shortcutTable } from './tables';
import { chartOf } from '$tests/laws';

describe('shortcuts', () => {
  const press = (actions: Actions, init: Partial<KeyboardEvent>) => {
    runShortcut(
      { key: 'z', target: null, preventDefault: () => undefined, ...init } as KeyboardEvent,
      actions,
    );
  };

  test('ask for their exact keys', () => {
    const done: string[] = [];
    const actions: Actions = {
      zones: () => void done.push('zones'),
      undo: () => void done.push('undo'),
      redo: () => void done.push('redo'),
    };
    press(actions, {});
    press(actions, { ctrlKey: true });
    press(actions, { altKey: true });
    press(actions, { shiftKey: true, ctrlKey: true });
    expect(done).toEqual(['zones', 'undo', 'redo']);
  });

  test('held down, what steps goes on, and what is switched or begun is done once', () => {
    const done = new Map<string, number>();
    const actions = Object.fromEntries(
      SHORTCUTS.map(({ id }) => [id, () => void done.set(id, (done.get(id) ?? 0) + 1)]),
    ) as Actions;
    let prevented = 0;
    for (const { id, keys, control } of SHORTCUTS) {
      const [whole = ''] = keys;
      const key = whole.replace('Shift+', '');
      const shiftKey = key !== whole;
      const held = { key, shiftKey, ctrlKey: control ?? false, preventDefault: () => prevented++ };
      for (const repeat of [false, true, true])
        press({ [id]: actions[id] }, { ...held, repeat } as Partial<KeyboardEvent>);
    }
    const steps = [...done].filter(([, times]) => times === 3).map(([id]) => id);
    expect(steps).toEqual([
      'next',
      'previous',
      'slideZone',
      'loop',
      'tempo',
      'walkBook',
      'undo',
      'redo',
    ]);
    expect([...done.values()].filter((times) => times === 1)).toHaveLength(SHORTCUTS.length - 8);
    // The page does nothing of its own with a key that is held, such as scrolling.
    expect(prevented).toBe(3 * SHORTCUTS.length);
  });

  test('one row may have several keys, and is told which', () => {
    const done: string[] = [];
    press({ zone: (key) => void done.push(key) }, { key: '1' });
    press({ zone: (key) => void done.push(key) }, { key: '5' });
    press({ next: () => void done.push('next') }, { key: 'PageDown' });
    expect(done).toEqual(['1', '5', 'next']);
  });

  test('a key means one thing, whatever the screen', () => {
    const keys = SHORTCUTS.flatMap(({ keys, control }) =>
      keys.map((key) => `${control ? 'Ctrl ' : ''}${key}`),
    );
    expect(new Set(keys).size).toBe(keys.length);
  });

  test('are silent while one types', () => {
    const done: string[] = [];
    const field = { closest: () => ({}) } as unknown as EventTarget;
    press({ zones: () => void done.push('zones') }, { target: field });
    expect(done).toEqual([]);
  });

  test('step and play from a closed list too, but never from a text field', () => {
    const done: string[] = [];
    const at = (field: string) =>
      ({
        closest: (css: string) =>
          css.includes(field.split(' ')[0] ?? '')
            ? { dataset: { keys: field.split(' ')[1] } }
            : null,
      }) as unknown as EventTarget;
    const actions: Actions = {
      next: () => void done.push('step'),
      play: () => void done.push('play'),
      zones: () => void done.push('zones'),
    };
    for (const key of ['.', ' ', 'z']) press(actions, { key, target: at('select') });
    expect(done).toEqual(['step', 'play']);
    for (const key of ['.', ' ', 'z']) press(actions, { key, target: at('textarea') });
    expect(done).toEqual(['step', 'play']);
    // A list of the stage leaves letters to the music, and arrows to itself.
    for (const key of ['z', 'ArrowDown']) press(actions, { key, target: at('select page') });
    expect(done).toEqual(['step', 'play', 'zones']);
  });

  test('of one character can be switched off; arrows, Space and Ctrl go on', () => {
    const done: string[] = [];
    const note = (name: string) => () => void done.push(name);
    const actions: Actions = {
      zones: note('zones'),
      next: note('step'),
      play: note('play'),
      undo: note('undo'),
    };
    const pressOff = (init: Partial<KeyboardEvent>) => {
      const event = { key: 'z', target: null, preventDefault: () => undefined, ...init };
      runShortcut(event as KeyboardEvent, actions, false);
    };
    for (const key of ['z', '.', 'ArrowRight', ' ']) pressOff({ key });
    pressOff({ ctrlKey: true });
    expect(done).toEqual(['step', 'play', 'undo']);
  });

  test('each is named once', () => {
    expect(new Set(SHORTCUTS.map(({ does }) => does)).size).toBe(SHORTCUTS.length);
  });

  test.each([
    ['keys', shortcutTable()],
    ['formats', formatTable()],
  ])('the manual holds the table of %s: npm run tables writes it', (_, table) => {
    expect(readFileSync('docs/manual.md', 'utf8')).toContain(table);
  });
});

describe('the heading of a bar', () => {
  const over = (room: number) =>
    headingInRoom(['Refrain, second time', 'Refrain'], ['heard in A♭ major', 'heard in A♭'], room);

  test('is whole where there is room, its key shortened first', () => {
    expect(over(300)).toEqual(['Refrain, second time', 'heard in A♭ major']);
    expect(over(230)).toEqual(['Refrain, second time', 'heard in A♭']);
    expect(over(190)).toEqual(['Refrain', 'heard in A♭ major']);
    expect(over(140)).toEqual(['Refrain', 'heard in A♭']);
    expect(over(130)).toEqual(['Refrain', '']);
  });

  test('is the section alone where there is least', () => {
    expect(over(60)).toEqual(['Refrain', '']);
    expect(headingInRoom([''], [''], 20)).toEqual(['', '']);
  });

  test('stands where a section, another time through it or a key begins', () => {
    const chart = chartOf('[A] x2\n| C | F |\n[B]\n| G | C |');
    const area = { from: 5, to: 6, key: parseKey('Eb') as Key, heard: true };
    const headings = (room: number) =>
      chart.bars.map((_, index) => headingOf(chart, index, index < 4 ? undefined : area, room));
    expect(headings(400).map(({ whole }) => whole)).toEqual([
      ...['A, first time', '', 'A, second time', ''],
      ...['B, heard in E♭ major', ''],
    ]);
    expect(headings(70).map(({ section, key: written }) => [section, written])).toEqual([
      ...[
        ['A', ''],
        ['', ''],
        ['A', ''],
        ['', ''],
      ],
      ...[
        ['B', ''],
        ['', ''],
      ],
    ]);
    expect(headingOf(chart, 4, { ...area, heard: false }, 400).key).toBe('in E♭ major');
    expect(headingOf(chart, 9, area, 400).whole).toBe('');
  });
});

import { describe, expect, test } from 'vitest';
import { rememberBy, rememberOf } from './cache';
import { lookUp } from './lists';

describe('remembering', () => {
  test('by a word: once for each, undefined answers too, and never without end', () => {
    const asked: number[] = [];
    const half = rememberBy(
      (value: number) => String(value),
      (value) => {
        asked.push(value);
        return value % 2 === 0 ? value / 2 : undefined;
      },
    );
    expect([half(4), half(4), half(3), half(3)]).toEqual([2, 2, undefined, undefined]);
    expect(asked).toEqual([4, 3]);
    for (let value = 10; value < 3_000; value++) half(value);
    const before = asked.length;
    half(4);
    expect(asked).toHaveLength(before + 1);
    expect(half(4)).toBe(2);
  });

  test('of an object: by itself, not by what it looks like', () => {
    let asked = 0;
    const name = rememberOf((of: { readonly name: string }) => {
      asked += 1;
      return of.name;
    });
    const one = { name: 'one' };
    expect([name(one), name(one), name({ name: 'one' })]).toEqual(['one', 'one', 'one']);
    expect(asked).toBe(2);
  });
});

test('a table is asked for words of its own only', () => {
  const table = { major: 1 };
  expect(lookUp(table, 'major')).toBe(1);
  for (const word of ['constructor', '__proto__', 'toString', 'hasOwnProperty', '']) {
    expect(lookUp(table, word)).toBeUndefined();
  }
});

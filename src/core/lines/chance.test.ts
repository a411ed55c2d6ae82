import { expect, test } from 'vitest';
import { byName, byNumber, weighed } from './chance';

test('a table of numbers is read in their order, halves and those below zero too', () => {
  expect(byNumber({ 0: 1, 2: 3, 0.5: 2, [-1]: 4 })).toEqual([
    [-1, 4],
    [0, 1],
    [0.5, 2],
    [2, 3],
  ]);
});

test('a table of names keeps its order, and each is drawn over its own share', () => {
  const choices = byName({ some: 1, more: 3 });
  const draws = [0, 0.249, 0.25, 0.999].map((number) => weighed(choices, () => number));
  expect(draws).toEqual(['some', 'some', 'more', 'more']);
});

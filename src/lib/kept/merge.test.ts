import { expect, test } from 'vitest';
import { merge } from './merge';

const BASE = { note: '', minutes: 5, zone: { low: 5, high: 8 } };

test('what only one has changed is as that one has it', () => {
  expect(merge(BASE, { ...BASE, minutes: 6 }, { ...BASE, note: 'slower' })).toEqual({
    fields: { ...BASE, minutes: 6, note: 'slower' },
    disputed: [],
  });
});

test('what both have changed is disputed, unless to the same', () => {
  const mine = { ...BASE, note: 'mine', zone: { low: 3, high: 6 } };
  const theirs = { ...BASE, note: 'theirs', zone: { low: 3, high: 6 } };
  expect(merge(BASE, mine, theirs)).toEqual({ fields: mine, disputed: ['note'] });
});

test('without a base whatever differs is disputed', () => {
  expect(merge(null, { note: 'mine', minutes: 5 }, BASE).disputed).toEqual(['note']);
});

test('what was taken away on one side is gone', () => {
  const { fields } = merge({ rule: true, note: '' }, { note: '' }, { rule: true, note: 'well' });
  expect(fields).toEqual({ rule: undefined, note: 'well' });
});

test('entries of a collection are put together one by one, a value of parts is not', () => {
  const base = { patterns: { kept: 1, gone: 2, changed: 3 }, zone: { low: 5, high: 8 } };
  const mine = { patterns: { kept: 1, changed: 3, mine: 4 }, zone: { low: 3, high: 8 } };
  const theirs = {
    patterns: { kept: 1, gone: 2, changed: 5, theirs: 6 },
    zone: { low: 5, high: 9 },
  };
  expect(merge(base, mine, theirs)).toEqual({
    fields: { patterns: { kept: 1, changed: 5, mine: 4, theirs: 6 }, zone: mine.zone },
    disputed: ['zone'],
  });
  // The same entry changed on both sides is the player's to choose.
  const both = merge(
    { patterns: { one: 1 } },
    { patterns: { one: 2 } },
    { patterns: { one: 3, two: 4 } },
  );
  expect(both).toEqual({ fields: { patterns: { one: 2, two: 4 } }, disputed: ['patterns'] });
});

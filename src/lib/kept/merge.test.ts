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

import { expect, test } from 'vitest';
import { changesList, listAt } from './lists';

test.each([
  ['/', '/'],
  ['/licks', '/licks'],
  ['/licks/ab1', '/licks'],
  ['/log', '/log'],
  ['/plan/ab1', null],
  ['/drills', null],
  ['/logs', null],
])('%s shows the list %s', (path, list) => {
  expect(listAt(path)).toBe(list);
});

test('a list changes with what it shows, but not with what is open beside it', () => {
  expect(changesList('/api/licks/ab1', '/licks', null)).toBe(true);
  expect(changesList('/api/licks/ab1', '/licks', 'cd2')).toBe(true);
  expect(changesList('/api/licks/ab1', '/licks', 'ab1')).toBe(false);
  expect(changesList('/api/stints/ab1', '/log', null)).toBe(true);
  expect(changesList('/api/stints/ab1', '/', null)).toBe(true);
  expect(changesList('/api/settings', '/log', null)).toBe(false);
});

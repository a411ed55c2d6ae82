import { expect, test } from 'vitest';
import {
  readPatternLine,
  readTags,
  SHARED_LIMITS,
  writePatternLine,
} from '$core/exercises/own/line';
import { settingsSchema } from '$lib/settings/settings';
import { onShelf, SHELF_LIMIT, withoutPattern, withPattern } from './shelf';

const DOWN = { name: 'Down the chord', text: '5 3 1 7', tags: ['bop', 'endings'] };

test('a pattern is kept under its name, found by it, replaced and taken away', () => {
  const one = withPattern({}, DOWN);
  if (typeof one === 'string') throw new Error(one);
  const two = withPattern(one, { name: ' A leap ', text: ' 1 ~3 ', tags: [] });
  if (typeof two === 'string') throw new Error(two);
  expect(onShelf(two)).toEqual([{ name: 'A leap', text: '1 ~3', tags: [] }, DOWN]);
  const again = withPattern(two, { ...DOWN, text: '5 3 1' });
  expect(typeof again === 'string' ? again : again[DOWN.name]?.text).toBe('5 3 1');
  expect(withoutPattern(two, 'A leap')).toEqual(one);
  expect(settingsSchema.safeParse({ patterns: two }).success).toBe(true);
});

test('without a name, unreadable or one too many it is refused in words', () => {
  expect(withPattern({}, { ...DOWN, name: ' ' })).toBe('Give the pattern a name.');
  expect(withPattern({}, { ...DOWN, text: '1 x' })).toMatch(/^“x” is no degree/u);
  const full = Object.fromEntries(
    Array.from({ length: SHELF_LIMIT }, (_, index) => [`${index}`, { text: '1', tags: [] }]),
  );
  expect(withPattern(full, DOWN)).toMatch(/^At most 200/u);
  expect(typeof withPattern(full, { ...DOWN, name: '7' })).toBe('object');
});

test('one line of text holds pattern, name and tags, and gives them back', () => {
  for (const pattern of [
    DOWN,
    { ...DOWN, tags: [] },
    { ...DOWN, name: '', tags: [] },
    { name: '', text: 'on m7, 7: (2 7)1 r ~5:q', tags: ['a tag'] },
  ])
    expect(readPatternLine(writePatternLine(pattern))).toEqual(pattern);
  expect(writePatternLine(DOWN)).toBe('5 3 1 7 // Down the chord // bop, endings');
  expect(readTags(' a, b,, a ,c ')).toEqual(['a', 'b', 'c']);
  expect(readTags('x'.repeat(99))).toEqual(['x'.repeat(SHARED_LIMITS.tag)]);
  expect(readTags('1,2,3,4,5,6,7,8,9')).toHaveLength(SHARED_LIMITS.tags);
});

import { expect, test } from 'vitest';
import { range } from '$core/lists';
import { answerSchema, seedOf } from './cards';

test('a card asks another question each time it comes, and the same when it is dealt again', () => {
  const seeds = range(0, 50).map((seen) => seedOf('abc find-degree 3-6', seen));
  expect(new Set(seeds).size).toBe(50);
  expect(seedOf('abc find-degree 3-6', 4)).toBe(seeds[4]);
  expect(seedOf('abd find-degree 3-6', 4)).not.toBe(seeds[4]);
  for (const seed of seeds) {
    expect(Number.isInteger(seed) && seed >= 0 && seed < 1_000_000).toBe(true);
  }
});

test.each([
  {},
  { id: '', right: true },
  { id: 'x'.repeat(201), right: true },
  { id: 'x', right: 1 },
])('an answer %j is refused', (wrong) => {
  expect(answerSchema.safeParse(wrong).success).toBe(false);
});

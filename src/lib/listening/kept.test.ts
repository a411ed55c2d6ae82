import { describe, expect, test } from 'vitest';
import { range } from '$core/lists';
import { createKept } from './kept';

const RATE = 1_000;
/** Samples that say when they came in, by their number. */
const block = (from: number, count = 100) =>
  Float32Array.from({ length: count }, (_, index) => from * RATE + index);

describe('what came in', () => {
  test('is there between any two moments, with silence where much was lost', () => {
    const kept = createKept(RATE);
    for (const from of [2, 2.1, 2.4]) kept.add(block(from), from);
    const heard = [...kept.between(2.05, 2.45)];
    expect(heard).toHaveLength(400);
    expect(heard.slice(0, 150)).toEqual(range(2_050, 2_200));
    expect(heard.slice(150, 350).every((one) => one === 0)).toBe(true);
    expect(heard.slice(350)).toEqual(range(2_400, 2_450));
    expect([...kept.between(0, 0.1)].every((one) => one === 0)).toBe(true);
    expect(kept.between(3, 2)).toHaveLength(0);
  });

  test('goes after five minutes', () => {
    const kept = createKept(RATE);
    for (const place of range(0, 5_000)) kept.add(block(place / 10), place / 10);
    expect(kept.between(1, 1.1).every((one) => one === 0)).toBe(true);
    expect(kept.between(499, 499.1)[0]).toBe(499_000);
  });
});

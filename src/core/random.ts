/** Numbers that look drawn by chance and are the same for the same seed. */

/** A source of numbers from 0 up to, not including, 1. After Tommy Ettinger's mulberry32. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** One number for some whole numbers, 0 up to 1: the same ones give the same. */
export const hashed = (...values: readonly number[]): number =>
  seeded(
    values.reduce((hash, value) => Math.imul(hash ^ (value + 0x9e37), 0x01000193), 0x811c9dc5),
  )();

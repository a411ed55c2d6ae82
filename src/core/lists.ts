/**
 * The element at `index`, which the caller knows to exist; throws a RangeError otherwise.
 *
 * @example at([1, 2], 1); // 2
 */
export function at<T>(list: ArrayLike<T>, index: number): T {
  if (index < 0 || index >= list.length) {
    throw new RangeError(`No element ${index} in a list of ${list.length}.`);
  }
  return list[index] as T;
}

/**
 * Remainder that is never negative: `modulo(-1, 12)` is 11.
 *
 * @example modulo(-1, 12); // 11
 */
export function modulo(value: number, divisor: number): number {
  return ((value % divisor) + divisor) % divisor;
}

/** The greatest number that divides both; of a number and 0 the number. */
export const greatestDivisor = (a: number, b: number): number =>
  b === 0 ? a : greatestDivisor(b, a % b);

/**
 * The integers from `from` up to, not including, `to`.
 *
 * @example range(2, 5); // [2,3,4]
 */
export function range(from: number, to: number): readonly number[] {
  return Array.from({ length: Math.max(0, to - from) }, (_, offset) => from + offset);
}

/** What a table has under a word of the player's: never what every object has, like `constructor`. */
export const lookUp = <T>(table: Readonly<Record<string, T>>, word: string): T | undefined =>
  Object.hasOwn(table, word) ? table[word] : undefined;

/** The items by a key of each, in the order in which the keys first come. */
export function group<T, K>(
  items: readonly T[],
  keyOf: (item: T) => K,
): ReadonlyMap<K, readonly T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const key = keyOf(item);
    const known = groups.get(key);
    if (known) known.push(item);
    else groups.set(key, [item]);
  }
  return groups;
}

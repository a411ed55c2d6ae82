/** Sentences out of words. */

/**
 * "a", "a and b", "a, b and c"; "or" for alternatives.
 *
 * @example list(['C', 'F', 'G']); // "C, F and G"
 */
export function list(words: readonly string[], joint: 'and' | 'or' = 'and'): string {
  const last = words.at(-1) ?? '';
  return words.length < 2 ? last : `${words.slice(0, -1).join(', ')} ${joint} ${last}`;
}

/**
 * "1 note", "3 notes"; what has a plural of its own gives it.
 *
 * @example
 * counted(1, 'bar'); // "1 bar"
 * counted(3, 'chorus', 'choruses'); // "3 choruses"
 */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

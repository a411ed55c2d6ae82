/** Sentences out of words. */

/** "a", "a and b", "a, b and c"; "or" for alternatives. */
export function list(words: readonly string[], joint: 'and' | 'or' = 'and'): string {
  const last = words.at(-1) ?? '';
  return words.length < 2 ? last : `${words.slice(0, -1).join(', ')} ${joint} ${last}`;
}

/** "1 note", "3 notes"; what has a plural of its own gives it. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

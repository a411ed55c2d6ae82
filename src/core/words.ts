/** Sentences out of words. */

/** "a", "a and b", "a, b and c"; "or" for alternatives. */
export function list(words: readonly string[], joint: 'and' | 'or' = 'and'): string {
  const last = words.at(-1) ?? '';
  return words.length < 2 ? last : `${words.slice(0, -1).join(', ')} ${joint} ${last}`;
}

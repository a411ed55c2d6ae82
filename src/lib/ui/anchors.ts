/** What a heading of the docs is found by: its words in small letters. */
export const anchorOf = (words: string): string =>
  words
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/gu, '');

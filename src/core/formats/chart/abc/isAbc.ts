/** Whether a text is ABC: a number and a key, as every tune has. */
export const isAbc = (text: string): boolean => /^X:\s*\d/mu.test(text) && /^K:/mu.test(text);

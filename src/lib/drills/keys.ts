/** The key of each answer: the one that is written on it, where there is such a key. */

interface AnswerKey {
  /** As it is shown. */
  readonly shown: string;
  /** The letter or digit on the key, in lower case, and whether Shift is held. */
  readonly key: string;
  readonly shift: boolean;
}

const PLAIN = 'qwertyuiopasdfghjkl';

/**
 * Notes have their letters (E; Shift E is E flat), degrees their digits (3; Shift 3 is the flat third; of 9, 11
 * and 13 the last digit that is free), anything else the digits in order.
 */
export function answerKeys(
  options: readonly string[],
  asks: 'note' | 'degree' | 'choice',
): readonly AnswerKey[] {
  const taken = new Set<string>();
  const plain = (place: number): AnswerKey => {
    const key = options.length <= 9 ? String(place + 1) : (PLAIN[place] ?? '');
    return { shown: key, key, shift: false };
  };
  if (asks === 'choice') return options.map((_, place) => plain(place));
  return options.map((option) => {
    const [, before = '', name = '', after = ''] =
      /^([b#]*)([A-G]|\d+)([b#]*)$/u.exec(option) ?? [];
    const key = name.toLowerCase().at(-1) ?? '';
    const shift = before + after !== '';
    const own = { shown: `${shift ? '⇧' : ''}${key.toUpperCase()}`, key, shift };
    const word = `${key} ${shift}`;
    if (key === '' || taken.has(word)) {
      const free = [...PLAIN].find((letter) => !taken.has(`${letter} false`)) ?? '';
      taken.add(`${free} false`);
      return { shown: free, key: free, shift: false };
    }
    taken.add(word);
    return own;
  });
}

/** The key of an event as {@link AnswerKey} has it: with Shift a digit is another character. */
export function keyOf({ code, key, shiftKey }: KeyboardEvent): { key: string; shift: boolean } {
  const digit = /^(?:Digit|Numpad)(\d)$/u.exec(code)?.[1];
  return { key: digit ?? key.toLowerCase(), shift: shiftKey };
}

/** The key of each answer: the one that is written on it, where there is such a key. */
import { NAME_PATTERN } from '$core/notes/naming';

interface AnswerKey {
  /** As it is shown. */
  readonly shown: string;
  /** The letter or digit on the key, in lower case, and whether Shift is held. */
  readonly key: string;
  readonly shift: boolean;
}

const PLAIN = 'qwertyuiopasdfghjkl';

const NAMED = new RegExp(`^([b#]*)(${NAME_PATTERN}|\\d+)([b#x]*)$`, 'u');

/**
 * Notes have their letters (E; Shift E is E flat; of Sol and Si the next letter that is free), degrees their digits
 * (3; Shift 3 is the flat third; of 9, 11 and 13 the last digit that is free), anything else the digits in order.
 *
 * @param nameOf how the player names a note
 */
export function answerKeys(
  options: readonly string[],
  asks: 'note' | 'degree' | 'choice',
  nameOf: (note: string) => string = (note) => note,
): readonly AnswerKey[] {
  const taken = new Set<string>();
  const plain = (place: number): AnswerKey => {
    const key = options.length <= 9 ? String(place + 1) : (PLAIN[place] ?? '');
    return { shown: key, key, shift: false };
  };
  if (asks === 'choice') return options.map((_, place) => plain(place));
  return options.map((option) => {
    const named = asks === 'note' ? nameOf(option) : option;
    const [, before = '', name = '', after = ''] = NAMED.exec(named) ?? [];
    const shift = before + after !== '';
    const letters = /\d/u.test(name) ? name.slice(-1) : name.toLowerCase();
    const key = [...letters].find((letter) => !taken.has(`${letter} ${shift}`));
    if (key === undefined) {
      const free = [...PLAIN].find((letter) => !taken.has(`${letter} false`)) ?? '';
      taken.add(`${free} false`);
      return { shown: free, key: free, shift: false };
    }
    taken.add(`${key} ${shift}`);
    return { shown: `${shift ? '⇧' : ''}${key.toUpperCase()}`, key, shift };
  });
}

/** The key of an event as {@link AnswerKey} has it: with Shift a digit is another character. */
export function keyOf({ code, key, shiftKey }: KeyboardEvent): { key: string; shift: boolean } {
  const digit = /^(?:Digit|Numpad)(\d)$/u.exec(code)?.[1];
  return { key: digit ?? key.toLowerCase(), shift: shiftKey };
}

/** Splits one line of bars into its signs and chord texts. */
import type { Place } from './syntax';

export type TokenKind =
  'bar' | 'open-repeat' | 'close-repeat' | 'count' | 'bracket' | 'key' | 'same' | 'share' | 'text';

export interface Token extends Place {
  readonly kind: TokenKind;
  readonly text: string;
}

const SIGNS: readonly (readonly [TokenKind, RegExp])[] = [
  ['open-repeat', /^\|{1,2}:/u],
  ['close-repeat', /^:\|{1,2}:?/u],
  ['bar', /^\|{1,2}/u],
  ['bracket', /^\[[^\]]*\]?/u],
  ['key', /^key:[^|]*/iu],
  ['same', /^%%?(?=[\s|:]|$)/u],
  ['share', /^\/(?=[\s|:/]|$)/u],
  ['count', /^x\d+(?=[\s|[]|$)/u],
];

/** A chord text runs to the next space or bar line, but spaces inside parentheses belong to it. */
const TEXT = /^(?:\([^)|]*\)|[^\s|:[\]])+|^./u;

export function tokenize(line: string, number: number, offset: number): readonly Token[] {
  const tokens: Token[] = [];
  let position = 0;
  while (position < line.length) {
    const rest = line.slice(position);
    const space = /^\s+/u.exec(rest);
    if (space) {
      position += space[0].length;
      continue;
    }
    const sign = SIGNS.find(([, pattern]) => pattern.test(rest));
    const text = (sign ? sign[1] : TEXT).exec(rest)?.[0] ?? rest;
    tokens.push({
      kind: sign ? sign[0] : 'text',
      text,
      from: offset + position,
      to: offset + position + text.length,
      line: number,
      column: position + 1,
    });
    position += text.length;
  }
  return tokens;
}

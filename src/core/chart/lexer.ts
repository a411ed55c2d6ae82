/** Splits one line of bars into its signs and chord texts. */
import type { TextPlace } from './syntax';

type TokenKind =
  'bar' | 'open-repeat' | 'close-repeat' | 'count' | 'bracket' | 'key' | 'same' | 'share' | 'text';

/** A piece of a line of bars, with its place in the text. */
export interface Token extends TextPlace {
  readonly kind: TokenKind;
  readonly text: string;
}

const SIGNS: readonly (readonly [TokenKind, RegExp])[] = [
  ['open-repeat', /\|{1,2}:/uy],
  ['close-repeat', /:\|{1,2}:?/uy],
  ['bar', /\|{1,2}/uy],
  ['bracket', /\[[^\]]*\]?/uy],
  ['key', /key:[^|]*/iuy],
  ['same', /%%?(?=[\s|:]|$)/uy],
  ['share', /\/(?=[\s|:/]|$)/uy],
  ['count', /x\d+(?=[\s|[]|$)/uy],
];

const SPACE = /\s+/uy;

/**
 * A chord text runs to the next space or bar line, but spaces inside parentheses belong to it. No
 * chord has so much in parentheses; the bound keeps the reading of unclosed ones linear.
 */
const TEXT = /(?:\([^)|]{0,40}\)|[^\s|:[\]])+|./uy;

/** What a pattern finds exactly at a position; null where it does not fit there. */
function matchAt(pattern: RegExp, line: string, position: number): string | null {
  pattern.lastIndex = position;
  return pattern.exec(line)?.[0] ?? null;
}

function tokenAt(line: string, position: number): Pick<Token, 'kind' | 'text'> {
  for (const [kind, pattern] of SIGNS) {
    const text = matchAt(pattern, line, position);
    if (text !== null) return { kind, text };
  }
  return { kind: 'text', text: matchAt(TEXT, line, position) ?? line.slice(position) };
}

/**
 * The tokens of a line of bars.
 *
 * @param number of the line, from 1
 * @param offset of the line from the beginning of the text, in characters
 */
export function tokenize(line: string, number: number, offset: number): readonly Token[] {
  const tokens: Token[] = [];
  let position = 0;
  while (position < line.length) {
    const space = matchAt(SPACE, line, position);
    if (space !== null) {
      position += space.length;
      continue;
    }
    const { kind, text } = tokenAt(line, position);
    tokens.push({
      kind,
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

/** What a whole text says of how its names are meant: sol-fa, the German H, figures for degrees. */
import { isGerman, isSolFa } from '../chords/symbols';
import { HEADER_PATTERN } from './headers';
import { tokenize } from './lexer';

/** Names of notes and numerals in a text that say how others in it are meant. */
export interface ForeignNames {
  /** Sol-fa, where `Do` is C. */
  readonly solFa: boolean;
  /** An H, beside which B could be B flat. */
  readonly german: boolean;
  /** Decimal numerals, among which `b7` is a degree. */
  readonly decimal: boolean;
}

/** A line without what its writer has noted beside it. */
export const withoutComment = (line: string): string =>
  line.trimStart().startsWith('#') ? '' : line.replace(/\/\/.*$/u, '');

/** Whether a text of a line may begin with a foreign name or a figure: most charts have none, and are read once. */
const FOREIGN = /(?<![^\s|:\]])(?:h|sol|r[eé]|mi|fa|la|si|[1-7])/iu;

export function namesIn(lines: readonly string[]): ForeignNames {
  const texts = lines
    .map(withoutComment)
    .filter((line) => FOREIGN.test(line) && !HEADER_PATTERN.test(line))
    .flatMap((line, index) => tokenize(line, index, 0))
    .flatMap(({ kind, text }) => (kind === 'text' ? [text] : []));
  return {
    solFa: texts.some(isSolFa),
    german: texts.some(isGerman),
    decimal: texts.some((text) => /^[1-7]/u.test(text)),
  };
}

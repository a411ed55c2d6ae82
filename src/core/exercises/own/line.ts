/** A pattern with its name and tags as one line of text, to be sent to somebody and read again. */

/** A pattern of a player’s own as it is given on in one line of text. */
export interface SharedPattern {
  /** The pattern itself. */
  readonly text: string;
  readonly name: string;
  readonly tags: readonly string[];
}

/** How long the name and the tags of a pattern may be, in characters, and how many tags there are. */
export const SHARED_LIMITS = { name: 60, tag: 24, tags: 8 } as const;

const BETWEEN = ' // ';

/** Words with commas between, each once, none empty, as many and as long as a pattern may have. */
export const readTags = (text: string): readonly string[] =>
  [
    ...new Set(
      text
        .split(',')
        .map((tag) => tag.trim().slice(0, SHARED_LIMITS.tag))
        .filter((tag) => tag !== ''),
    ),
  ].slice(0, SHARED_LIMITS.tags);

/**
 * A pattern as one line.
 *
 * @example writePatternLine({ text: '5 3 1 7', name: 'Down', tags: ['bop'] }); // "5 3 1 7 // Down // bop"
 */
export const writePatternLine = ({ text, name, tags }: SharedPattern): string =>
  [
    text,
    ...(name || tags.length > 0 ? [name] : []),
    ...(tags.length > 0 ? [tags.join(', ')] : []),
  ].join(BETWEEN);

/** Takes such a line apart; what has no name and tags is a pattern alone. */
export function readPatternLine(line: string): SharedPattern {
  const [text = '', name = '', ...tags] = line.split('//').map((part) => part.trim());
  return {
    text,
    name: name.slice(0, SHARED_LIMITS.name),
    tags: readTags(tags.join(',')),
  };
}

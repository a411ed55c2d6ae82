/** Feel: how beats are divided and felt, from the words a chart says it with. */

/** The feels the band knows. */
export const FEEL_KINDS = [
  'swing',
  'two-beat',
  'shuffle',
  'straight',
  'rock',
  'bossa',
  'samba',
  'funk',
  'reggae',
  'train beat',
  'ballad',
  'jazz waltz',
  'slow 12/8',
  'modal',
] as const;
export type FeelKind = (typeof FEEL_KINDS)[number];

/** How beats are divided and felt. */
export interface Feel {
  /** As the chart says it. */
  readonly name: string;
  readonly kind: FeelKind;
  /**
   * Which notes are played long–short, and how much longer: 2 for a triplet's two thirds and one.
   * Null where they are even.
   */
  readonly swing: { readonly unit: 'eighth' | '16th'; readonly ratio: number } | null;
}

/** Swung in triplets; ballads and waltzes lie a little flatter. */
const TRIPLET = { unit: 'eighth', ratio: 2 } as const;
const GENTLE = { unit: 'eighth', ratio: 1.6 } as const;

/** Words by which a feel is known, the more particular first. */
const WORDS: readonly (readonly [words: RegExp, kind: FeelKind, swing: Feel['swing']])[] = [
  [/waltz/u, 'jazz waltz', GENTLE],
  [/12\s*\/\s*8/u, 'slow 12/8', null],
  [/shuffle/u, 'shuffle', TRIPLET],
  [/two[- ]?beat|\bin two\b/u, 'two-beat', TRIPLET],
  [/samba/u, 'samba', null],
  [/bossa|latin/u, 'bossa', null],
  [/reggae|ska\b/u, 'reggae', null],
  [/train|country/u, 'train beat', null],
  [/funk|(?:16th|sixteenth)s?/u, 'funk', null],
  [/ballad/u, 'ballad', GENTLE],
  [/modal|vamp/u, 'modal', null],
  [/straight|even/u, 'straight', null],
  [/rock|pop|gospel|folk/u, 'rock', null],
  [/swing|swung|jazz|bop|blues/u, 'swing', TRIPLET],
];

/**
 * The feel words ask for; null where they name none that is known.
 *
 * @example knownFeel('like rain'); // null
 */
export function knownFeel(words: string): Feel | null {
  const said = words.toLowerCase();
  const found = WORDS.find(([pattern]) => pattern.test(said));
  if (!found) return null;
  const [, kind, swing] = found;
  return { name: words, kind, swing: /straight|even/u.test(said) ? null : swing };
}

/**
 * The feel a chart's words ask for; null where there are none, straight where none is known.
 *
 * @example readFeel('medium swing').kind; // "swing"
 */
export function readFeel(words: string | null): Feel | null {
  if (words === null || words.trim() === '') return null;
  return knownFeel(words) ?? { name: words, kind: 'straight', swing: null };
}

/**
 * A feel by its kind alone.
 *
 * @example feelOfKind('shuffle').swing; // {"unit":"eighth","ratio":2}
 */
export const feelOfKind = (kind: FeelKind): Feel =>
  knownFeel(kind) ?? { name: kind, kind, swing: null };

/** The shelf of the player's own patterns: what is kept there, and how it is kept and found. */
import { parsePattern } from '$core/exercises/own/pattern';
import type { SharedPattern } from '$core/exercises/own/line';
import type { Settings } from '$lib/settings/settings';

type Shelf = Settings['patterns'];

/** How many patterns a shelf holds. */
export const SHELF_LIMIT = 200;

/** The patterns of a shelf by their names. */
export const onShelf = (shelf: Shelf): readonly SharedPattern[] =>
  Object.entries(shelf)
    .map(([name, { text, tags }]) => ({ name, text, tags }))
    .toSorted((a, b) => a.name.localeCompare(b.name, 'en'));

/** The shelf with a pattern under its name; a sentence where it cannot be kept. */
export function withPattern(shelf: Shelf, { name, text, tags }: SharedPattern): Shelf | string {
  const called = name.trim();
  if (called === '') return 'Give the pattern a name.';
  const read = parsePattern(text);
  if (!read.ok) return read.problems[0]?.message ?? 'This cannot be read as a pattern.';
  if (!(called in shelf) && Object.keys(shelf).length >= SHELF_LIMIT)
    return `At most ${SHELF_LIMIT} patterns are kept: delete one first.`;
  return { ...shelf, [called]: { text: text.trim(), tags: [...tags] } };
}

export const withoutPattern = (shelf: Shelf, name: string): Shelf =>
  Object.fromEntries(Object.entries(shelf).filter(([one]) => one !== name));

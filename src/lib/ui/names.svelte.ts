/** How notes and numerals are named on every screen: set by the player's settings, asked by {@link glyphs}. */
import type { Naming } from '$core/notes/naming';

interface Names {
  readonly notes: Naming;
  readonly numerals: 'roman' | 'decimal';
}

let names = $state.raw<Names>({ notes: 'letters', numerals: 'roman' });

export const namesNow = (): Names => names;

export function nameAs({ notes, numerals }: Names): void {
  if (notes !== names.notes || numerals !== names.numerals) names = { notes, numerals };
}

/** The names of chords over the staff: how wide they are, and where they stand. Pixels. */
import { type Chord, chordName } from 'corvel-core';
import { showSymbol } from '$lib/ui/glyphs';

/** With real signs for accidentals. */
export const NAME_FACE = "'Source Serif 4 Variable', 'Corvel Signs', serif";
/** In points, as the notation library takes it. */
export const NAME_SIZE = 14;
/** Room between two names, and before the first of a bar. */
export const NAME_GAP = 6;
export const NAME_INSET = 12;

export interface Name {
  readonly text: string;
  readonly width: number;
}

let ruler: CanvasRenderingContext2D | null = null;

/** Measured without asking the page to lay anything out. */
export function nameOf(chord: Chord): Name {
  const text = showSymbol(chordName(chord));
  ruler ??= document.createElement('canvas').getContext('2d');
  if (!ruler) return { text, width: text.length * NAME_SIZE };
  ruler.font = `bold ${NAME_SIZE}pt ${NAME_FACE}`;
  return { text, width: ruler.measureText(text).width };
}

/** A name over the beat its chord comes on. */
export interface PlacedName extends Name {
  readonly x: number;
}

/** Where the names over a bar stand: back from their beats as far as the next, or the bar's end, asks. */
export function standApart(names: readonly PlacedName[], end: number): readonly number[] {
  let limit = end;
  return names
    .toReversed()
    .map(({ x, width }) => {
      const place = Math.min(x, limit - width);
      limit = place - NAME_GAP;
      return place;
    })
    .reverse();
}

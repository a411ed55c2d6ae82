/** The names of chords over the staff: how wide they are, and where they stand. Pixels. */
import { type Chord, chordName } from 'corvel-core';
import { at } from '$core/lists';
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

/** Names where they stand, and how much smaller they are written where the bar has no room for all. */
export interface NamesOfBar {
  readonly places: readonly number[];
  readonly scale: number;
}

/**
 * Where the names over a bar stand: at their beats, back from them as far as the next name or the bar's end
 * asks, and on again as far as its beginning or the name before asks.
 */
export function standApart(names: readonly PlacedName[], from: number, to: number): NamesOfBar {
  const needed = names.reduce((sum, { width }) => sum + width + NAME_GAP, -NAME_GAP);
  const scale = needed > to - from ? (to - from) / needed : 1;
  const gap = NAME_GAP * scale;
  let last = to + gap;
  const back = names
    .toReversed()
    .map(({ x, width }) => (last = Math.min(x, last - gap - width * scale)))
    .toReversed();
  let first = from;
  const places = names.map(({ width }, index) => {
    const place = Math.max(first, at(back, index));
    first = place + width * scale + gap;
    return place;
  });
  return { places, scale };
}

/** Measures of the drawn neck, in the units of its picture. */
import { fingerPosition, fretAtPosition, wiresOf } from '$core/neck/geometry';
import { type Neck, stringCount, type Zone } from '$core/neck/neck';
import { at, range } from '$core/lists';

export interface NeckLayout {
  /** Size of its notes beside the large neck's. */
  readonly noteScale: number;
  readonly width: number;
  readonly height: number;
  /** The frets drawn; from fret 0 the open strings are drawn too. */
  readonly frets: Zone;
  /** Ends of the strings. */
  readonly start: number;
  readonly end: number;
  readonly top: number;
  readonly bottom: number;
  readonly wire: (fret: number) => number;
  readonly finger: (fret: number) => number;
  readonly string: (string: number) => number;
  readonly fretAt: (x: number) => number;
}

export interface NeckMeasures {
  readonly width: number;
  readonly stringGap: number;
  readonly leftHanded: boolean;
  /** The frets to draw; the whole neck when left out. */
  readonly frets?: Zone;
  /** Positions of the fret wires along the neck, as `wiresOf` gives them; even when left out. */
  readonly wires?: readonly number[];
  /** Room above the strings and below them. */
  readonly above: number;
  readonly below: number;
  readonly openSpace: number;
  /** Size of its notes beside the large neck's. */
  readonly noteScale: number;
}

const MARGIN = 10;

/** The large neck of Plan: room for the zone's bracket above and for fret numbers below. */
export const LARGE = {
  ...{ width: 1240, stringGap: 27, above: 30, below: 30, openSpace: 34, noteScale: 1 },
} as const;
/** Widths from which the neck of Plan has more room between its strings. */
const ROOMY = 1150;
const NARROW = 768;

/** Plan's neck at a width in pixels, one unit each: strings and notes stay large enough for a stand. */
export const atWidth = (width: number): Omit<NeckMeasures, 'leftHanded'> => {
  const drawn = Math.max(NARROW, width);
  const roomy = drawn >= ROOMY;
  return {
    ...{ ...LARGE, width: drawn, above: 28, below: 40 },
    stringGap: roomy ? 34 : 31,
    noteScale: roomy ? 1.385 : 1.15,
  };
};

/** Height of the picture of a neck with so many strings. */
export const heightOf = (
  { above, below, stringGap }: Pick<NeckMeasures, 'above' | 'below' | 'stringGap'>,
  strings: number,
): number => above + stringGap * (strings - 1) + below;

/** Pixels between the notes of two strings. */
const BETWEEN = 6;

/** The size of notes, so wide at a size of 1, with which those of two strings do not touch. */
export const apart = (stringGap: number, wide: number): number => (stringGap - BETWEEN) / wide;

/** A neck in a grid. */
export const SMALL = {
  // On paper, three beside one another, its smallest label is still 7 points high.
  ...{ width: 240, stringGap: 26, above: 17, below: 28, openSpace: 26, noteScale: 0.98 },
} as const;

export function layOut(neck: Neck, measures: NeckMeasures): NeckLayout {
  const { width, stringGap, leftHanded, above, openSpace, noteScale } = measures;
  const frets = measures.frets ?? { low: 0, high: neck.frets };
  const open = frets.low === 0;
  const start = MARGIN + (open ? openSpace : 0);
  const end = width - MARGIN;
  const top = above;
  const bottom = above + stringGap * (stringCount(neck) - 1);
  const mirror = (x: number) => (leftHanded ? width - x : x);
  const wires = measures.wires ?? wiresOf(neck.frets);
  const first = at(wires, Math.max(0, frets.low - 1));
  const span = at(wires, frets.high) - first;
  const along = (position: number) => mirror(start + ((position - first) / span) * (end - start));
  return {
    width,
    height: heightOf(measures, stringCount(neck)),
    frets,
    noteScale,
    start: mirror(start),
    end: mirror(end),
    top,
    bottom,
    wire: (fret) => along(at(wires, fret)),
    finger: (fret) =>
      fret === 0 ? mirror(MARGIN + openSpace / 2) : along(fingerPosition(fret, wires)),
    string: (string) => top + stringGap * (string - 1),
    fretAt: (x) => fretAtPosition(first + ((mirror(x) - start) / (end - start)) * span, wires),
  };
}

/** Wire thickness by how low a string sounds. */
export const gauge = (openMidi: number): number => Math.max(0.7, 2.6 - (openMidi - 38) / 14);

export const strings = (neck: Neck): readonly number[] => range(1, stringCount(neck) + 1);

/** A stretch of neck that shows a shape with a fret to spare, and never less than five frets. */
export function windowAround(neck: Neck, shape: Zone): Zone {
  const low = shape.low <= 1 ? 0 : shape.low - 1;
  return { low, high: Math.min(neck.frets, Math.max(shape.high + 1, low + 5)) };
}

/** Measures of the drawn neck, in the units of its picture. */
import { fingerPosition, fretAtPosition, wiresOf } from '$core/neck/geometry';
import type { Neck, Zone } from 'corvel-core';
import { stringCount } from '$core/neck/neck';
import { at, range } from '$core/lists';

export interface NeckLayout {
  /** Size of its notes. */
  readonly noteScale: number;
  readonly width: number;
  readonly height: number;
  /** The frets drawn; from fret 0 the open strings are drawn too. */
  readonly frets: Zone;
  /** The frets notes may stand on. */
  readonly played: Zone;
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

interface NeckMeasures {
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
  /** Size of its notes; as large as lets no two of them touch when left out. */
  readonly noteScale?: number;
  /** The frets notes may stand on; those that are drawn when left out. */
  readonly played?: Zone;
  /** Whether flags stand beside notes: then notes leave them room where frets are narrow. */
  readonly flagged?: boolean;
}

const MARGIN = 10;

/** The large neck of a list: room above its strings and for fret numbers below. */
export const LARGE = {
  width: 1240,
  stringGap: 27,
  above: 30,
  below: 30,
  openSpace: 34,
  noteScale: 1,
} as const;

/** What a screen gives its neck, in pixels. */
interface NeckRoom {
  readonly width: number;
  /** Null where it may be as high as it likes. */
  readonly height: number | null;
}

/** From this width on a screen is as high as its window, and its neck as the room that is left. */
export const FITTED = 960;
/** Narrower than this a screen shows the zone, and not the whole neck. */
export const ZONE_ONLY = 640;
/** Below this width the whole neck is scrolled: `min-w-[720px]` where it is drawn, whatever the reader's letters. */
const WHOLE = 720;
/** Room over the highest string and under the lowest, besides half of what lies between two strings. */
const EDGES = { above: 16, below: 22 } as const;
/** Pixels between strings where nothing bounds the height, and their bounds. */
export const USUAL_GAP = 44;
/** The least between strings under a finger, where a phone's screen has no room for more. */
export const TIGHT_GAP = 36;
/** The least of a phone held sideways: a finger of 24 pixels. */
export const LOWEST_GAP = 24;
/** The most between strings: beyond it notes lie too far apart to be seen as one shape. */
export const WIDEST_GAP = 72;
const LEAST_GAP = 20;

/** The height with which strings stand so far apart. */
export const heightFor = (gap: number, strings: number): number =>
  gap * strings + EDGES.above + EDGES.below;

/** The neck of a screen, one unit a pixel: strings as far apart as its height lets them stand. */
export function measuresIn(
  { width, height }: NeckRoom,
  strings: number,
  whole = true,
): Omit<NeckMeasures, 'leftHanded' | 'noteScale'> {
  const free = height === null ? USUAL_GAP : (height - EDGES.above - EDGES.below) / strings;
  const stringGap = Math.max(LEAST_GAP, Math.min(WIDEST_GAP, free));
  return {
    width: whole ? Math.max(WHOLE, width) : width,
    stringGap,
    openSpace: stringGap + 6,
    above: EDGES.above + stringGap / 2,
    below: EDGES.below + stringGap / 2,
  };
}

/** The frets drawn where only the zone is: those of the hand, and so many beside it. */
export function fretsBeside(neck: Neck, { low, high }: Zone, beside: number): Zone {
  const from = low - beside;
  return { low: from <= 1 ? 0 : from, high: Math.min(neck.frets, high + beside) };
}

/** Height of the picture of a neck with so many strings. */
const heightOf = (
  { above, below, stringGap }: Pick<NeckMeasures, 'above' | 'below' | 'stringGap'>,
  strings: number,
): number => above + stringGap * (strings - 1) + below;

/** Pixels between the notes of two strings, and of two frets. */
const BETWEEN = { strings: 6, frets: 3 } as const;

/** How wide the widest thing on a neck is at a size of 1: the ring of the target that comes. */
export const WIDEST = 40;

/** At a size of 1: half of the widest note beside a flag, what lies between two things, the width of a pennant. */
export const FLAG = { note: 17.5, between: 3, least: 7, most: 16 } as const;
/** From a note with a flag to the note of the next fret. */
const FLAGGED = FLAG.note + WIDEST / 2 + 3 * FLAG.between + FLAG.least;

/** A neck in a grid. */
export const SMALL = {
  // On paper, three beside one another, its smallest label is still 7 points high.
  width: 240,
  stringGap: 32,
  above: 17,
  below: 30,
  openSpace: 28,
  noteScale: 0.92,
} as const;

export function layOut(neck: Neck, measures: NeckMeasures): NeckLayout {
  const { width, stringGap, leftHanded, above, openSpace } = measures;
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
  const finger = (fret: number) =>
    fret === 0 ? mirror(MARGIN + openSpace / 2) : along(fingerPosition(fret, wires));
  const played = measures.played ?? frets;
  const fingers = range(Math.max(frets.low, played.low), Math.min(frets.high, played.high) + 1);
  const closest = fingers
    .slice(1)
    .reduce((least, fret) => Math.min(least, Math.abs(finger(fret) - finger(fret - 1))), Infinity);
  const beside = measures.flagged ? (closest * WIDEST) / FLAGGED : closest - BETWEEN.frets;
  const room = Math.min(stringGap - BETWEEN.strings, beside);
  return {
    width,
    height: heightOf(measures, stringCount(neck)),
    frets,
    played,
    noteScale: measures.noteScale ?? Math.max(0.2, room / WIDEST),
    start: mirror(start),
    end: mirror(end),
    top,
    bottom,
    wire: (fret) => along(at(wires, fret)),
    finger,
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

/** Scales under the hand: five positions, three to a string, one octave; and arpeggios. */
import { type Collection, collection, collectionNotes } from '../collections/collections';
import { range } from '../lists';
import { degree } from '../notes/degrees';
import { halfSteps, type Note, pitchClass } from '../notes/notes';
import { type Box, boxesOf } from './boxes';
import {
  ascending,
  fretOf,
  onNeck,
  type Placed,
  spanOf,
  walkStrings,
  withoutDoubles,
} from './fingering';
import { fretFor, type Neck, openPitch, pitchAt, placesOf, stringCount, type Zone } from './neck';

/** A stretch of frets with the places of a material in it. */
export interface Position extends Zone {
  readonly places: readonly Placed[];
}

interface ScalePosition extends Position {
  readonly collection: Collection;
  /** The pentatonic box the position is built round. */
  readonly box: Box;
}

const has = ({ kind }: Collection, name: string): boolean => {
  const size = halfSteps(degree(name));
  return kind.degrees.some((one) => halfSteps(one) === size);
};

/** The pentatonic by whose boxes a scale's positions are counted: minor under a flat third. */
export function underlying(scale: Collection): Collection {
  const minor = has(scale, 'b3') && !has(scale, '3');
  return collection(scale.root, minor ? 'minor pentatonic' : 'major pentatonic');
}

const WIDTH = 4;

function inWindow(neck: Neck, notes: readonly Note[], low: number): readonly Placed[] {
  return withoutDoubles(neck, placesOf(neck, notes, { low, high: low + WIDTH }));
}

/** The five frets round a box that hold most of a scale; of equal ones those from its own first. */
function positionAround(neck: Neck, scale: Collection, box: Box): ScalePosition {
  const notes = collectionNotes(scale);
  const lows = box.high - box.low >= WIDTH ? [box.low] : [box.low, box.low - 1];
  const choices = lows.filter((low) => low >= neck.capo).map((low) => inWindow(neck, notes, low));
  const places = choices.reduce(
    (best, one) => (one.length > best.length ? one : best),
    choices[0] ?? [],
  );
  return { collection: scale, box, places, ...spanOf(places) };
}

/** The five positions of a scale, wherever they lie on the neck; lowest first. */
export const positionsOf = (neck: Neck, scale: Collection): readonly ScalePosition[] =>
  boxesOf(neck, underlying(scale)).map((box) => positionAround(neck, scale, box));

/** Three notes to each string, from each of the scale's notes on the lowest string. */
export function threePerString(neck: Neck, scale: Collection): readonly Position[] {
  const notes = collectionNotes(scale);
  const lowest = openPitch(neck, stringCount(neck));
  return notes.flatMap((note) => {
    const first = fretOf(neck, stringCount(neck), note, neck.capo);
    const shape = range(0, 3)
      .map((octave) => walkStrings(neck, notes, lowest + first + 12 * octave, 3))
      .find((places) => onNeck(neck, places));
    return shape ? [{ places: shape, ...spanOf(shape) }] : [];
  });
}

/** Frets on either side of its first note within which a fragment stays. */
const FRAGMENT = { back: 1, on: 4 } as const;

/** Pitches laid out from a place upward, on the same string as long as the hand reaches. */
function layOutFrom(
  neck: Neck,
  pitches: readonly { readonly midi: number; readonly note: Note }[],
  string: number,
  fret: number,
): readonly Placed[] | null {
  const places: Placed[] = [];
  let on = string;
  for (const { midi, note } of pitches) {
    let here = fretFor(neck, on, midi);
    while (on > 1 && (here === null || here > fret + FRAGMENT.on - 1)) {
      on -= 1;
      here = fretFor(neck, on, midi);
    }
    if (here === null || here < fret - FRAGMENT.back || here > fret + FRAGMENT.on) return null;
    places.push({ string: on, fret: here, note });
  }
  return places;
}

/** One octave of a scale from its root on a string, for chords that pass fast. */
export function oneOctave(neck: Neck, scale: Collection, string: number): readonly Position[] {
  const notes = collectionNotes(scale);
  const first = fretOf(neck, string, scale.root, neck.capo);
  return range(0, 2).flatMap((octave) => {
    const fret = first + 12 * octave;
    const pitches = ascending(notes, openPitch(neck, string) + fret, notes.length + 1);
    const places = layOutFrom(neck, pitches, string, fret);
    return places ? [{ places, ...spanOf(places) }] : [];
  });
}

/** Of two places for the next note of an arpeggio, the cost of the second after the first. */
const reach = (from: Placed, to: Placed, hand: number): number =>
  Math.abs(to.fret - from.fret) +
  2 * Math.max(0, to.fret - (hand + 4)) +
  2 * Math.max(0, hand - 1 - to.fret) +
  (from.string - to.string > 1 ? 3 : 0);

/**
 * An arpeggio of so many octaves from a place up, on the strings that move the hand least. Null
 * where the neck ends first.
 */
export function arpeggioFrom(
  neck: Neck,
  notes: readonly Note[],
  from: { readonly string: number; readonly fret: number },
  octaves: number,
): Position | null {
  const start = pitchAt(neck, from);
  const pitches = ascending(notes, start, notes.length * octaves + 1);
  if (pitches[0]?.midi !== start) return null;
  interface Way {
    readonly cost: number;
    readonly places: readonly Placed[];
  }
  let ways: readonly Way[] = [{ cost: 0, places: [{ ...from, note: pitches[0].note }] }];
  for (const { midi, note } of pitches.slice(1)) {
    const next = new Map<number, Way>();
    for (const way of ways) {
      const last = way.places.at(-1);
      if (!last) continue;
      for (let string = last.string; string >= 1; string--) {
        const fret = fretFor(neck, string, midi);
        if (fret === null) continue;
        const place = { string, fret, note };
        const cost = way.cost + reach(last, place, from.fret);
        const known = next.get(string);
        if (!known || cost < known.cost) next.set(string, { cost, places: [...way.places, place] });
      }
    }
    ways = [...next.values()];
  }
  const best = ways.reduce<Way | null>(
    (least, way) => (least === null || way.cost < least.cost ? way : least),
    null,
  );
  return best ? { places: best.places, ...spanOf(best.places) } : null;
}

/** The arpeggio from each of its notes on a string: root position and the inversions. */
export const inversionsOn = (
  neck: Neck,
  notes: readonly Note[],
  string: number,
  octaves: number,
): readonly Position[] =>
  notes.flatMap((note) => {
    const fret = fretOf(neck, string, note, neck.capo);
    return arpeggioFrom(neck, notes, { string, fret }, octaves) ?? [];
  });

/** Whether a set of notes holds a note, however it is spelled. */
export const holds = (notes: readonly Note[], note: Note): boolean =>
  notes.some((one) => pitchClass(one) === pitchClass(note));

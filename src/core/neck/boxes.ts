/**
 * Boxes: the five regions in which a pentatonic lies under the hand. On strings tuned as a guitar's
 * a box has two notes on each; on any other tuning it is computed from where the hand can reach.
 */
import { type Collection, collectionNotes } from '../collections/collections';
import { at, range } from '../lists';
import { degree } from '../notes/degrees';
import { halfSteps, step, transpose } from '../notes/notes';
import {
  fretOf,
  onNeck,
  type Placed,
  shiftPlaces,
  spanOf,
  walkStrings,
  withoutDoubles,
} from './fingering';
import { hasStandardIntervals } from './instruments';
import { type Neck, openPitch, placesOf, stringCount, type Zone } from './neck';

/** The three ways players were taught to name a box. */
export interface BoxName {
  /** 1–5, 1 beginning on the low string with the root of the minor pentatonic. */
  readonly minor: number;
  /** 1–5, 1 beginning on the low string with the root of the major pentatonic. */
  readonly major: number;
  /** The open-chord shape it surrounds, counted from the collection's own root. */
  readonly letter: 'E' | 'D' | 'C' | 'A' | 'G';
}

/** A pentatonic box: two notes on every string. */
export interface Box extends Zone {
  readonly collection: Collection;
  /** Which of the collection's notes the lowest string begins on, from 0. */
  readonly index: number;
  readonly name: BoxName;
  /** From the lowest note up. */
  readonly places: readonly Placed[];
  /** The blue note under the same hand: the flat fifth of a minor box, the flat third of a major one. */
  readonly blue: readonly Placed[];
}

const LETTERS = ['E', 'D', 'C', 'A', 'G'] as const;

const around = (number: number): number => ((number + 4) % 5) + 1;

/** Whether a pentatonic lies as the major one does: a second and a third above its root. */
const liesAsMajor = ({ kind }: Collection): boolean => kind.degrees.map(step).includes(1);

function boxName(collection: Collection, index: number): BoxName {
  const own = index + 1;
  return {
    minor: liesAsMajor(collection) ? around(own + 1) : own,
    major: liesAsMajor(collection) ? own : around(own - 1),
    letter: at(LETTERS, index),
  };
}

/** Frets the hand opens below the low string's first note on a tuning without taught shapes. */
const OPENING = 1;
const REACH = 4;

function computedBox(neck: Neck, collection: Collection, fret: number): readonly Placed[] {
  const zone = { low: fret - OPENING, high: fret - OPENING + REACH };
  // Shapes lie beyond the ends of the neck too: measure on one long enough for all of them.
  const long = { ...neck, frets: fret + 24, capo: 0 };
  const shifted = zone.low < 0 ? 12 : 0;
  const window = { low: zone.low + shifted, high: zone.high + shifted };
  const places = withoutDoubles(neck, placesOf(long, collectionNotes(collection), window));
  const lowest = fret + shifted;
  const strings = stringCount(neck);
  const begun = places.filter((place) => place.string < strings || place.fret >= lowest);
  return shiftPlaces(begun, -shifted);
}

const BLUE = { minor: degree('b5'), major: degree('b3') } as const;

function blueNotesIn(neck: Neck, collection: Collection, span: Zone): readonly Placed[] {
  const interval = liesAsMajor(collection) ? BLUE.major : BLUE.minor;
  const known = collection.kind.degrees.some((own) => halfSteps(own) === halfSteps(interval));
  return known ? [] : placesOf(neck, [transpose(collection.root, interval)], span);
}

function boxAt(neck: Neck, collection: Collection, index: number, fret: number): Box {
  const notes = collectionNotes(collection);
  const places = hasStandardIntervals(neck)
    ? walkStrings(neck, notes, openPitch(neck, stringCount(neck)) + fret, 2)
    : computedBox(neck, collection, fret);
  const span = spanOf(places);
  const blue = places.length > 0 ? blueNotesIn(neck, collection, span) : [];
  return { collection, index, name: boxName(collection, index), places, blue, ...span };
}

/** Every box of a pentatonic that lies whole on the neck, lowest first. */
export function boxesOf(neck: Neck, collection: Collection): readonly Box[] {
  const strings = stringCount(neck);
  return collection.kind.degrees
    .flatMap((degree, index) => {
      const lowest = fretOf(neck, strings, transpose(collection.root, degree), neck.capo);
      return range(0, 3).map((octave) => boxAt(neck, collection, index, lowest + 12 * octave));
    })
    .filter(({ places }) => places.length > 0 && onNeck(neck, places))
    .sort((a, b) => a.low - b.low || a.high - b.high);
}

const centre = ({ low, high }: Zone): number => (low + high) / 2;

/** Frets of a shape that lie outside a zone, on both sides together. */
const overhang = (zone: Zone, shape: Zone): number =>
  Math.max(0, zone.low - shape.low) + Math.max(0, shape.high - zone.high);

/** The shape nearest to a zone: its middle nearest, then the least outside, then the lower. */
export function nearestTo<S extends Zone>(zone: Zone, shapes: readonly S[]): S | null {
  const distance = (shape: S) => Math.abs(centre(shape) - centre(zone));
  return shapes.reduce<S | null>((best, shape) => {
    if (best === null) return shape;
    const nearer = distance(shape) - distance(best) || overhang(zone, shape) - overhang(zone, best);
    return nearer < 0 ? shape : best;
  }, null);
}

/**
 * Shapes: notes on strings, played from low to high, with the finger for each. A position is the
 * index finger at its lowest fret and one finger a fret, with a stretch either way.
 */
import { range } from '../lists';
import { type Interval, intervalBetween, type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { type Neck, openPitch, pitchAt, type Place, stringCount, type Zone } from './neck';

/** A place with its note. */
export interface Placed extends Place {
  readonly note: Note;
}

/** A placed note with what it is over a root and the left-hand finger, 1–4; 0 for open strings. */
export interface Fingered extends Placed {
  readonly degree: Interval;
  readonly finger: number;
  readonly stretched: boolean;
}

/** The frets from the lowest place to the highest. */
export const spanOf = (places: readonly Place[]): Zone => ({
  low: Math.min(...places.map(({ fret }) => fret)),
  high: Math.max(...places.map(({ fret }) => fret)),
});

/** Frets under the hand without a stretch, and with one. */
export const HAND = { plain: 4, stretched: 5 } as const;

/** Above this fret the frets lie so close that five are no stretch. */
const CLOSE_FRETS = 12;

/** Whether a hand must stretch over these places: more than four frets below the twelfth. */
export function needsStretch(places: readonly Place[]): boolean {
  const fretted = places.filter(({ fret }) => fret > 0);
  if (fretted.length === 0) return false;
  const { low, high } = spanOf(fretted);
  return high - low + 1 > (low >= CLOSE_FRETS ? HAND.stretched : HAND.plain);
}

/** The finger for a fret with the index finger at `index`; 0 for an open string. */
export function fingerFor(fret: number, index: number): Pick<Fingered, 'finger' | 'stretched'> {
  if (fret === 0) return { finger: 0, stretched: false };
  const reach = fret - index + 1;
  return { finger: Math.max(1, Math.min(4, reach)), stretched: reach < 1 || reach > 4 };
}

/**
 * The lowest fret of the hand: where most notes lie under four fingers; of equal ones the highest,
 * so that the index finger stretches back rather than the little finger on.
 */
function indexFret(places: readonly Place[]): number {
  const fretted = places.filter(({ fret }) => fret > 0);
  if (fretted.length === 0) return 1;
  const { low, high } = spanOf(fretted);
  const under = (index: number) =>
    fretted.filter(({ fret }) => fret >= index && fret < index + HAND.plain).length;
  return range(low, Math.max(low, high - HAND.plain + 1) + 1).reduce(
    (best, index) => (under(index) >= under(best) ? index : best),
    low,
  );
}

/** Names what every note of a shape is over a root and which finger takes it. */
export function fingerShape(places: readonly Placed[], root: Note): readonly Fingered[] {
  const index = indexFret(places);
  return places.map((place) => ({
    ...place,
    degree: intervalBetween(root, place.note),
    ...fingerFor(place.fret, index),
  }));
}

/** Pitches of a set of notes from a pitch up, each with its spelling; endless in principle. */
export function ascending(notes: readonly Note[], from: Midi, count: number) {
  const byClass = new Map(notes.map((note) => [pitchClass(note), note]));
  const found: { readonly midi: Midi; readonly note: Note }[] = [];
  for (let midi = from; found.length < count && midi < from + 12 * count + 12; midi++) {
    const note = byClass.get(((midi % 12) + 12) % 12);
    if (note !== undefined) found.push({ midi, note });
  }
  return found;
}

/**
 * The notes of a set walked up from a place on the lowest string, so many to each string. Places
 * may lie behind the nut or beyond the last fret: the shape is whole, the neck may not hold it.
 */
export function walkStrings(
  neck: Neck,
  notes: readonly Note[],
  from: Midi,
  perString: number,
): readonly Placed[] {
  const strings = stringCount(neck);
  return ascending(notes, from, strings * perString).map(({ midi, note }, index) => {
    const string = strings - Math.floor(index / perString);
    return { string, fret: midi - openPitch(neck, string), note };
  });
}

/** Whether all places are on the neck, the capo’s fret and above. */
export const onNeck = (neck: Neck, places: readonly Place[]): boolean =>
  places.every(({ fret }) => fret >= neck.capo && fret <= neck.frets);

/** The same shape so many frets up. */
export const shiftPlaces = <P extends Place>(places: readonly P[], frets: number): readonly P[] =>
  places.map((place) => ({ ...place, fret: place.fret + frets }));

/** Each pitch once, string by string: where two strings hold it, the higher string does. */
export function withoutDoubles(neck: Neck, places: readonly Placed[]): readonly Placed[] {
  const pitches = new Map(places.map((place) => [pitchAt(neck, place), place]));
  for (const place of places) {
    const other = pitches.get(pitchAt(neck, place));
    if (other && place.string < other.string) pitches.set(pitchAt(neck, place), place);
  }
  return [...pitches.entries()].sort(([a], [b]) => a - b).map(([, place]) => place);
}

/** The lowest fret on a string where a note lies at or above `floor`. */
export function fretOf(neck: Neck, string: number, note: Note, floor: number): number {
  const open = openPitch(neck, string) % 12;
  const above = (((pitchClass(note) - open - floor) % 12) + 12) % 12;
  return floor + above;
}

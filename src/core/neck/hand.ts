/** What of a set of notes lies under one hand in a zone. */
import { range } from '../lists';
import { type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { HAND, type Placed, withoutDoubles } from './fingering';
import { fretFor, type Neck, pitchAt, placesOf, type Place, stringCount, type Zone } from './neck';

/**
 * The frets a hand in a zone reaches: one further on either side, and, however narrow the zone is
 * drawn, four fingers' worth.
 */
export const reachOf = (neck: Neck, { low, high }: Zone): Zone => ({
  low: Math.max(neck.capo, low - 1),
  high: Math.min(neck.frets, Math.max(high + 1, low + HAND.plain - 1)),
});

/** Strings from low to high, as they are numbered. */
const everyString = (neck: Neck): readonly number[] => range(1, stringCount(neck) + 1);

/** The pitches of a set that lie between two pitches and are not among some places. */
function missingBetween(
  neck: Neck,
  notes: readonly Note[],
  places: readonly Placed[],
): readonly { readonly midi: Midi; readonly note: Note }[] {
  const first = places[0];
  const last = places.at(-1);
  if (!first || !last) return [];
  const spelled = new Map(notes.map((note) => [pitchClass(note), note]));
  const there = new Set(places.map((place) => pitchAt(neck, place)));
  return range(pitchAt(neck, first), pitchAt(neck, last)).flatMap((midi) => {
    const note = spelled.get(midi % 12);
    return note === undefined || there.has(midi) ? [] : [{ midi, note }];
  });
}

/** Whether a hand reaching back for these pitches finds as many as one reaching on. */
function reachesBack(
  neck: Neck,
  zone: Zone,
  strings: readonly number[],
  missing: readonly { readonly midi: Midi }[],
): boolean {
  const found = (fits: (fret: number) => boolean) =>
    missing.filter(({ midi }) =>
      strings.some((string) => {
        const fret = fretFor(neck, string, midi);
        return fret !== null && fits(fret);
      }),
    ).length;
  const reach = reachOf(neck, zone);
  const back = found((fret) => fret >= reach.low && fret < zone.low);
  return back >= found((fret) => fret > zone.high && fret <= reach.high);
}

function findUnderHand(
  neck: Neck,
  notes: readonly Note[],
  zone: Zone,
  strings: readonly number[],
  known: readonly Placed[],
): readonly Placed[] {
  const reach = reachOf(neck, zone);
  const inReach = ({ string, fret }: Place) =>
    strings.includes(string) && fret >= reach.low && fret <= reach.high;
  const shape = known.filter(inReach);
  const pitches = new Set(shape.map((place) => pitchAt(neck, place)));
  const inside = placesOf(neck, notes, zone).filter(
    (place) => inReach(place) && !pitches.has(pitchAt(neck, place)),
  );
  const held = withoutDoubles(neck, [...shape, ...inside]);
  const missing = missingBetween(neck, notes, held);
  if (missing.length === 0) return held;
  // Where either side would do, the index finger stretches back.
  const back = reachesBack(neck, zone, strings, missing);
  const off = (fret: number) =>
    Math.max(zone.low - fret, fret - zone.high) + (fret < zone.low === back ? 0 : 0.5);
  const stretched = missing.flatMap(({ midi, note }): readonly Placed[] => {
    const places = strings.flatMap((string): readonly Placed[] => {
      const fret = fretFor(neck, string, midi);
      return fret === null || !inReach({ string, fret }) ? [] : [{ string, fret, note }];
    });
    const first = places[0];
    if (!first) return [];
    return [places.reduce((best, one) => (off(one.fret) < off(best.fret) ? one : best), first)];
  });
  return [...held, ...stretched].sort((a, b) => pitchAt(neck, a) - pitchAt(neck, b));
}

interface UnderHand {
  /** The only strings to use; every one by itself. */
  readonly strings?: readonly number[] | null;
  /** A shape already taken, whose places come first. */
  readonly shape?: readonly Placed[];
}

/**
 * The notes of a set in a zone from low to high, each pitch once and, between the lowest and the
 * highest, none missing: where a zone of four frets ends before the next string begins, the hand
 * stretches by a fret.
 */
export const underHand = (
  neck: Neck,
  notes: readonly Note[],
  zone: Zone,
  { strings = null, shape = [] }: UnderHand = {},
): readonly Placed[] => findUnderHand(neck, notes, zone, strings ?? everyString(neck), shape);

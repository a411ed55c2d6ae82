/** Where the hand can stay: the five zones of an octave, and what of a chart lies in each. */
import { type Chord, chordNotes } from '../chords/chords';
import { type Collection, collection, collectionName } from '../collections/collections';
import { matchingPentatonic } from '../collections/pentatonics';
import { arpeggio } from '../lenses/material';
import { at } from '../lists';
import type { Note } from '../notes/notes';
import { type Box, boxesOf, type BoxName, nearestTo, overhang } from './boxes';
import { type Placed, spanOf } from './fingering';
import { type Neck, wholeNeck, type Zone } from './neck';
import { arpeggioIn, positionAround, underlying } from './positions';

/** The five zones of a key: the boxes of its major pentatonic in the first octave, lowest first. */
export function zonesOf(neck: Neck, majorTonic: Note): readonly Zone[] {
  const boxes = boxesOf(neck, collection(majorTonic, 'major pentatonic'));
  const five: Box[] = [];
  for (const box of boxes) {
    if (five.length < 5 && five.every(({ index }) => index !== box.index)) five.push(box);
  }
  const zones = five.map(({ low, high }) => ({ low, high }));
  // A neck too short for any whole box is one zone.
  return zones.length > 0 ? zones : [{ low: neck.capo, high: wholeNeck(neck).high }];
}

export const MATERIALS = ['matching-pentatonic', 'mode', 'chord-tones'] as const;
export type ZoneMaterial = (typeof MATERIALS)[number];

/** A chord's shape in a zone, with what of it lies outside the hand. */
export interface ZoneShape extends Zone {
  readonly box: BoxName;
  readonly places: readonly Placed[];
  /** The notes of the shape that the zone does not reach. */
  readonly outside: readonly Placed[];
  /** The blue notes under the same hand, where the shape is a pentatonic box. */
  readonly blue: readonly Placed[];
}

const withOutside = (
  zone: Zone,
  box: BoxName,
  places: readonly Placed[],
  blue: readonly Placed[] = [],
): ZoneShape => ({
  ...(places.length > 0 ? spanOf(places) : zone),
  box,
  places,
  outside: places.filter(({ fret }) => fret < zone.low || fret > zone.high),
  blue,
});

/** The nearest box of a pentatonic to a zone; null on a neck too short for one. */
export function pentatonicIn(neck: Neck, pentatonic: Collection, zone: Zone): ZoneShape | null {
  const box = nearestTo(zone, boxesOf(neck, pentatonic));
  return box && withOutside(zone, box.name, box.places, box.blue);
}

/** The position of a scale round the box nearest to a zone. */
export function scaleIn(neck: Neck, scale: Collection, zone: Zone): ZoneShape | null {
  const box = nearestTo(zone, boxesOf(neck, underlying(scale)));
  return box && withOutside(zone, box.name, positionAround(neck, scale, box).places);
}

/** Every chord tone within the box nearest to a zone, those below the lowest root included. */
export function chordTonesIn(
  neck: Neck,
  chord: Chord,
  around: Collection,
  zone: Zone,
): ZoneShape | null {
  const box = nearestTo(zone, boxesOf(neck, underlying(around)));
  if (!box) return null;
  const hand = { low: Math.min(box.low, zone.low), high: Math.max(box.high, zone.high) };
  // No wider than the hand: the nearer end of what both together cover.
  const reach = overhang(zone, box) > 1 ? box : hand;
  return withOutside(zone, box.name, arpeggioIn(neck, chordNotes(chord), reach));
}

/** What is laid out of a chord in a zone, by name; null on a neck too short for a box. */
export interface LaidOut {
  readonly name: string;
  readonly shape: ZoneShape;
}

/** A chord in a zone as one of the stock materials; `mode` is the one to play over it. */
export function layOutIn(
  neck: Neck,
  { chord, mode }: { readonly chord: Chord; readonly mode: Collection },
  material: ZoneMaterial,
  zone: Zone,
): LaidOut | null {
  const pentatonic = matchingPentatonic(chord);
  const laid = (name: string, shape: ZoneShape | null) => shape && { name, shape };
  switch (material) {
    case 'mode':
      return laid(collectionName(mode), scaleIn(neck, mode, zone));
    case 'chord-tones':
      return laid(arpeggio(chord).name, chordTonesIn(neck, chord, pentatonic, zone));
    case 'matching-pentatonic':
      return laid(collectionName(pentatonic), pentatonicIn(neck, pentatonic, zone));
  }
}

/** The lowest zone that lies clear of the nut, where a chart is shown first. */
export const firstZone = (neck: Neck, majorTonic: Note): Zone => {
  const zones = zonesOf(neck, majorTonic);
  return zones.find(({ low }) => low >= neck.capo + 2) ?? at(zones, 0);
};

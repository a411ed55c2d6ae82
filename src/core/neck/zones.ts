/** Where the hand can stay: the five zones of an octave, and what of a chart lies in each. */
import { type Chord, chordNotes } from '../chords/chords';
import {
  type Collection,
  collection,
  collectionName,
  collectionNotes,
} from '../collections/collections';
import { matchingPentatonic } from '../collections/pentatonics';
import { arpeggio } from '../lenses/material';
import { at } from '../lists';
import { type Note, pitchClass } from '../notes/notes';
import { type Box, boxesOf, type BoxName, nearestTo } from './boxes';
import { type Placed, spanOf } from './fingering';
import { inZone, type Neck, wholeNeck, type Zone } from './neck';
import { reachOf, underHand } from './hand';
import { underlying } from './positions';

/**
 * The five zones of a key: the boxes of its major pentatonic in the first octave, lowest first.
 *
 * @example zonesOf(STANDARD_NECK, note('C')).length; // 5
 */
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

/** What the map of a zone shows of each chord. */
export const MATERIALS = ['matching-pentatonic', 'mode', 'chord-tones'] as const;
export type ZoneMaterial = (typeof MATERIALS)[number];

/** A chord's shape in a zone, with what of it lies outside the hand. */
interface ZoneShape extends Zone {
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
  outside: places.filter(({ fret }) => !inZone(zone, fret)),
  blue,
});

/** The nearest box of a pentatonic to a zone; null on a neck too short for one. */
export function pentatonicIn(neck: Neck, pentatonic: Collection, zone: Zone): ZoneShape | null {
  const box = nearestTo(zone, boxesOf(neck, pentatonic));
  if (!box) return null;
  const reach = reachOf(neck, zone);
  const reached = ({ fret }: Placed) => inZone(reach, fret);
  // At the nut the box itself may lie behind it, and the next one out of reach.
  return box.places.every(reached)
    ? withOutside(zone, box.name, box.places, box.blue)
    : handful(neck, collectionNotes(pentatonic), zone, box, box.blue.filter(reached));
}

/** Notes laid under the hand in a zone, named by the box nearest to it and round its places. */
const handful = (
  neck: Neck,
  notes: readonly Note[],
  zone: Zone,
  box: Box,
  blue: readonly Placed[] = [],
): ZoneShape => {
  const known = new Set(notes.map(pitchClass));
  const shape = box.places.filter(({ note }) => known.has(pitchClass(note)));
  return withOutside(zone, box.name, underHand(neck, notes, zone, { shape }), blue);
};

/** A scale under the hand in a zone, with the box of its pentatonic in it. */
export function scaleIn(neck: Neck, scale: Collection, zone: Zone): ZoneShape | null {
  const box = nearestTo(zone, boxesOf(neck, underlying(scale)));
  return box && handful(neck, collectionNotes(scale), zone, box);
}

/** Every chord tone in a zone, those below the lowest root included. */
function chordTonesIn(neck: Neck, chord: Chord, around: Collection, zone: Zone): ZoneShape | null {
  const box = nearestTo(zone, boxesOf(neck, underlying(around)));
  return box && handful(neck, chordNotes({ ...chord, bass: null }), zone, box);
}

/** Chosen notes under the hand in a zone, named by the box of a pentatonic of the chord. */
export function notesIn(
  neck: Neck,
  chord: Chord,
  notes: readonly Note[],
  zone: Zone,
): ZoneShape | null {
  const box = nearestTo(zone, boxesOf(neck, matchingPentatonic(chord)));
  return box && handful(neck, notes, zone, box);
}

/** What is laid out of a chord in a zone, by name; null on a neck too short for a box. */
interface LaidOut {
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

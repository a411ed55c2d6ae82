/** Shapes an exercise plays over one chord: boxes laid diagonally, triads, inversions, a shape that shifts. */
import type { Chord } from '../chords/chords';
import { type Collection, collectionNotes } from '../collections/collections';
import { triadsInside } from '../collections/inside';
import { matchingPentatonic } from '../collections/pentatonics';
import { at } from '../lists';
import { boxesOf, nearestTo } from '../neck/boxes';
import { ascending, HAND, type Placed } from '../neck/fingering';
import { underHand } from '../neck/hand';
import { openPitch, pitchAt, type Place, placesOf, stringCount } from '../neck/neck';
import { isVoiced, type Voicing, voicingsOn } from '../neck/voicings';
import { type Moment, ladder } from './rungs';

/** The pentatonic that is played, or the chord's own where something else is. */
function pentatonicOf({ span }: Moment): Collection {
  const { collection: chosen } = span.material;
  return chosen?.kind.family === 'pentatonics' ? chosen : matchingPentatonic(span.chord);
}

/** Notes to each string of a run from box to box, from the lowest string up. */
const DIAGONAL = { some: [3, 2], all: [3] } as const;
/** Notes on the lowest string from which a run may begin. */
const STARTS = 12;
/** So many notes take a run through all five boxes. */
const ALL_FIVE = 16;

/** A pentatonic laid diagonally over the strings, from the box nearest to the zone upward. */
export function diagonal(moment: Moment): readonly Placed[] {
  const { neck, zone, count } = moment;
  const pentatonic = pentatonicOf(moment);
  const notes = collectionNotes(pentatonic);
  const perString = count >= ALL_FIVE ? DIAGONAL.all : DIAGONAL.some;
  const box = nearestTo(zone, boxesOf(neck, pentatonic));
  const lowest = box?.places[0];
  if (!lowest) return ladder(moment, notes);
  const strings = stringCount(neck);
  const laid = (from: number) =>
    ascending(notes, from, strings * 3).reduce<readonly Placed[]>((places, { midi, note }) => {
      const on = places.at(-1)?.string ?? strings;
      const there = places.filter(({ string }) => string === on).length;
      const full = there >= at(perString, (strings - on) % perString.length);
      const string = full ? on - 1 : on;
      return string < 1
        ? places
        : [...places, { string, fret: midi - openPitch(neck, string), note }];
    }, []);
  // Where the neck ends before the run does, it begins in a lower box.
  const open = openPitch(neck, strings) + neck.capo;
  const starts = ascending(notes, open, STARTS).filter(({ midi }) => midi <= pitchAt(neck, lowest));
  const runs = starts.reverse().map(({ midi }) => laid(midi));
  const whole = runs.find((run) => run.every(({ fret }) => fret <= neck.frets));
  return whole ?? ladder(moment, notes);
}

/** The triads inside a pentatonic, the chord's own among them first. */
export function triadsOf(moment: Moment): readonly Chord[] {
  const inside = triadsInside(pentatonicOf(moment));
  const plain = inside.filter(({ quality }) => quality.name === '' || quality.name === 'm');
  return plain.length >= 2 ? plain : inside;
}

/** The inversions of a chord along some strings, lowest first: of its triad, or on four of all. */
export function inversionsAlong({ neck, span, strings }: Moment): readonly Voicing[] {
  const four = strings.length > 3 && isVoiced(span.chord, 'drop-2');
  return voicingsOn(neck, span.chord, four ? 'drop-2' : 'triad', strings.slice(0, four ? 4 : 3));
}

export const MOTIF = [0, 1, 2, 1, 3, 2, 1, 0] as const;

/** The string a shifted shape is rooted on, always the same one: the fifth, or the lowest there is. */
const SHAPE_STRING = 5;

/** The place of a material's root on the shape's string, nearest to the middle of the zone. */
function shapeRoot({ neck, zone, span }: Pick<Moment, 'neck' | 'zone' | 'span'>): Placed {
  const string = Math.min(stringCount(neck), SHAPE_STRING);
  const roots = placesOf(neck, [span.material.root]).filter((place) => place.string === string);
  const off = ({ fret }: Place) => Math.abs(fret - (zone.low + zone.high) / 2);
  return roots.reduce((best, place) => (off(place) < off(best) ? place : best), at(roots, 0));
}

/** The notes a motif takes above the root of what is played, under one hand. */
export function shapeOf(moment: Pick<Moment, 'neck' | 'zone' | 'span'>): readonly Placed[] {
  const { neck, span } = moment;
  const root = shapeRoot(moment);
  const hand = { low: root.fret, high: Math.min(neck.frets, root.fret + HAND.plain - 1) };
  return underHand(neck, span.material.notes, hand)
    .filter((rung) => pitchAt(neck, rung) >= pitchAt(neck, root))
    .slice(0, Math.max(...MOTIF) + 1);
}

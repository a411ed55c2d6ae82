/** Two notes at once: thirds and sixths out of what lies under the hand, moving by step. */
import { chordNotes } from '../chords/chords';
import { degreeOver, weightOver } from '../chords/over';
import type { ChordSpan } from '../lines/spans';
import { at } from '../lists';
import type { Placed } from '../neck/fingering';
import { reachOf, underHand } from '../neck/hand';
import { inZone, type Neck, pitchAt, placesOf, type Zone } from '../neck/neck';
import { pitchClass } from '../notes/notes';

/** Two places sounded together, the lower pitch first. */
export interface Stop {
  readonly low: Placed;
  readonly high: Placed;
  readonly kind: 'third' | 'sixth';
}

/** Half steps of a third and of a sixth. */
const SIZES = { third: [3, 4], sixth: [8, 9] } as const;
/** Strings between the two: neighbours for thirds, one between for sixths. */
const APART = { third: [1], sixth: [1, 2] } as const;
const HAND = 4;

/**
 * Every pair of notes of a chord's material a third or sixth apart under the hand, from low to
 * high, each pitch pair once.
 */
export function stopsIn(neck: Neck, span: ChordSpan, zone: Zone): readonly Stop[] {
  const { material, chord } = span;
  const reach = reachOf(neck, zone);
  const tones = new Set([...material.notes, ...chordNotes(chord)].map(pitchClass));
  const rungs = underHand(neck, material.notes, zone);
  const places = placesOf(
    neck,
    [...chordNotes({ ...chord, bass: null }), ...material.notes],
    reach,
  );
  const stops: Stop[] = [];
  for (const kind of ['third', 'sixth'] as const) {
    for (const low of rungs) {
      const high = places.find((place) => {
        const size = pitchAt(neck, place) - pitchAt(neck, low);
        const strings = low.string - place.string;
        return (
          SIZES[kind].some((one) => one === size) &&
          APART[kind].some((one) => one === strings) &&
          Math.abs(place.fret - low.fret) <= HAND &&
          inZone(reach, place.fret) &&
          tones.has(pitchClass(place.note))
        );
      });
      if (high) stops.push({ low, high, kind });
    }
  }
  return stops.toSorted((a, b) => pitchAt(neck, a.high) - pitchAt(neck, b.high));
}

/** How much of its chord a stop says: both tones, a guide tone among them. */
function says({ low, high }: Stop, { chord }: ChordSpan): number {
  return [low, high].reduce((sum, { note }) => {
    const weight = weightOver(chord, degreeOver(chord, note));
    return sum + (weight === 'guide' ? 3 : weight === 'chord' ? 2 : 0);
  }, 0);
}

/** So many stops over a chord: the change said first, then on by step in the same kind. */
export function stopsThrough(
  neck: Neck,
  span: ChordSpan,
  zone: Zone,
  count: number,
  last: Stop | null,
  turn: number,
): readonly Stop[] {
  const all = stopsIn(neck, span, zone);
  if (all.length === 0) return [];
  // Thirds over some chords, sixths over others, whichever there are.
  const wanted = turn % 4 === 3 ? 'sixth' : 'third';
  const same = all.filter(({ kind }) => kind === wanted);
  const row = same.length > 2 ? same : all;
  const away = (stop: Stop) =>
    last ? Math.abs(pitchAt(neck, stop.high) - pitchAt(neck, last.high)) : 6;
  const start = row.reduce((best, stop, index) => {
    const worth = 2 * says(stop, span) - away(stop);
    return worth > 2 * says(at(row, best), span) - away(at(row, best)) ? index : best;
  }, 0);
  const rising = start < row.length / 2;
  const played: Stop[] = [];
  let here = start;
  let by = rising ? 1 : -1;
  while (played.length < count) {
    played.push(at(row, here));
    if (row.length === 1) continue;
    if (here + by < 0 || here + by >= row.length) by = -by;
    here += by;
  }
  return played;
}

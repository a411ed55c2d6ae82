/**
 * Fingering: where on the neck notes are played so that the hand moves least, found exactly, and
 * licks moved as a shape or laid out anew.
 */
import { at } from '../lists';
import { type Neck, pitchAt, type Place, placesOfPitch, wholeNeck, type Zone } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import { bestPaths } from '../paths/layered';
import { shiftSlides, type Technique, techniqueOf } from '../phrases/techniques';
import type { LickNote } from './sounding';
import type { Beats } from '../time/units';

/** What a fingering costs, in whole points: what the hand does, what the picking hand does. */
export const FINGERING_COSTS = {
  /** For each fret above the twelfth, where the neck is hard to reach. */
  high: 1,
  /** For each fret along the neck, and for each beyond a hand's three. */
  fret: 1,
  shift: 2,
  /** For each string skipped. */
  skip: 1,
  /** To or from an open string. */
  open: 1,
  /** A slur or slide that is not on one string in its direction. */
  slur: 40,
  /** A bend on an open string or on the first two frets, and on a wound string. */
  stiff: 40,
  wound: 6,
  /** For each fret two notes at once lie apart, and for each beyond a stretched hand. */
  spread: 1,
  stretch: 20,
  /** For each fret outside the zone: a note is kept there, but only where nothing else is. */
  outside: 1_000,
} as const;

const HIGH = 12;
const HAND = 3;
const STRETCH = 4;
const FIRST_BENT = 3;
const PLAIN_STRINGS = 3;

/** Notes struck at one moment, by their indices. */
function momentsOf(notes: readonly { readonly beat: Beats }[]): readonly (readonly number[])[] {
  const moments: number[][] = [];
  for (const [index, { beat }] of notes.entries()) {
    const last = moments.at(-1);
    const first = last?.[0];
    if (last && first !== undefined && at(notes, first).beat === beat) {
      last.push(index);
    } else moments.push([index]);
  }
  return moments;
}

/** What the way from place to place costs: along the neck, and over strings. */
export function reachCost(from: Place, to: Place): number {
  const { open, fret, shift, skip } = FINGERING_COSTS;
  const frets = from.fret === 0 || to.fret === 0 ? open : Math.abs(from.fret - to.fret);
  const skipped = Math.max(0, Math.abs(from.string - to.string) - 1);
  return shift * Math.max(0, frets - HAND) + fret * frets + skip * skipped;
}

const slurs = (techniques: readonly Technique[]): 1 | -1 | 0 | null =>
  techniqueOf(techniques, 'hammer-on')
    ? 1
    : techniqueOf(techniques, 'pull-off')
      ? -1
      : techniqueOf(techniques, 'slide') && techniqueOf(techniques, 'slide')?.from === undefined
        ? 0
        : null;

/** Whether a technique comes from the note before. */
const leads = (technique: Technique): boolean => slurs([technique]) !== null;

/** What is asked of a note wherever it lies. */
function standCost(note: Fingered, place: Place, zone: Zone | null): number {
  const { high, stiff, wound, outside } = FINGERING_COSTS;
  const bend = techniqueOf(note.techniques, 'bend');
  const slide = techniqueOf(note.techniques, 'slide');
  const bent = bend
    ? (place.fret < FIRST_BENT ? stiff : 0) + (place.string > PLAIN_STRINGS ? wound : 0)
    : 0;
  const slid = slide && place.fret === 0 ? stiff : 0;
  const off = zone ? Math.max(0, zone.low - place.fret, place.fret - zone.high) : 0;
  return high * Math.max(0, place.fret - HIGH) + bent + slid + outside * off;
}

interface Fingered {
  readonly beat: Beats;
  readonly midi: Midi;
  readonly techniques: readonly Technique[];
}

/** Every way to play the notes of one moment, each on a string of its own. */
function gripsOf(neck: Neck, notes: readonly Fingered[]): readonly (readonly Place[])[] {
  return notes.reduce<readonly (readonly Place[])[]>(
    (grips, { midi }) =>
      grips.flatMap((grip) =>
        placesOfPitch(neck, midi)
          .filter(({ string }) => grip.every((place) => place.string !== string))
          .map((place) => [...grip, place]),
      ),
    [[]],
  );
}

function gripCost(grip: readonly Place[]): number {
  const { spread, stretch } = FINGERING_COSTS;
  const frets = grip.map(({ fret }) => fret).filter((fret) => fret > 0);
  if (frets.length < 2) return 0;
  const width = Math.max(...frets) - Math.min(...frets);
  return spread * width + stretch * Math.max(0, width - STRETCH);
}

/** The lowest note of a grip stands for it when the hand moves on. */
function lead(grip: readonly Place[]): Place {
  return grip.reduce((low, place) => (place.string > low.string ? place : low));
}

function moveCost(
  from: readonly Place[],
  to: readonly Place[],
  notes: readonly Fingered[],
): number {
  let cost = reachCost(lead(from), lead(to));
  for (const [index, { techniques }] of notes.entries()) {
    const way = slurs(techniques);
    if (way === null) continue;
    const place = at(to, index);
    const before = from.find(({ string }) => string === place.string);
    const frets = before ? place.fret - before.fret : 0;
    const held = before !== undefined && frets !== 0 && (way === 0 || Math.sign(frets) === way);
    if (!held) cost += FINGERING_COSTS.slur;
  }
  return cost;
}

interface Laid {
  /** A place for each note; null where the neck has none. */
  readonly places: readonly (Place | null)[];
  readonly cost: number;
}

/** The places of all notes, chosen together. */
function layOut(neck: Neck, notes: readonly Fingered[], zone: Zone | null): Laid {
  const moments = momentsOf(notes).flatMap((indices) => {
    const playable = indices.filter((index) => gripsOf(neck, [at(notes, index)]).length > 0);
    // More notes at once than the strings hold: the last ones are left out.
    let kept = playable;
    while (
      kept.length > 1 &&
      gripsOf(
        neck,
        kept.map((index) => at(notes, index)),
      ).length === 0
    ) {
      kept = kept.slice(0, -1);
    }
    const own = kept.map((index) => at(notes, index));
    return kept.length === 0 ? [] : [{ kept, own, grips: gripsOf(neck, own) }];
  });
  const [best] = bestPaths(
    {
      sizes: moments.map(({ grips }) => grips.length),
      node: (layer, node) => {
        const { grips, own } = at(moments, layer);
        const grip = at(grips, node);
        const stands = grip.map((place, index) => standCost(at(own, index), place, zone));
        return gripCost(grip) + stands.reduce((sum, one) => sum + one, 0);
      },
      edge: (layer, from, to) => {
        const next = at(moments, layer + 1);
        return moveCost(at(at(moments, layer).grips, from), at(next.grips, to), next.own);
      },
      loop: false,
    },
    1,
  );
  const places: (Place | null)[] = notes.map(() => null);
  for (const [layer, node] of (best?.nodes ?? []).entries()) {
    const { kept, grips } = at(moments, layer);
    for (const [index, place] of at(grips, node).entries()) places[at(kept, index)] = place;
  }
  return { places, cost: best?.cost ?? 0 };
}

/** A place for every pitch, chosen together, in a zone where it can be; null where a pitch lies off the neck. */
export function placePitches(
  neck: Neck,
  pitches: readonly Midi[],
  zone: Zone | null = null,
): readonly Place[] | null {
  const notes = pitches.map((midi, beat) => ({ midi, beat, techniques: [] }));
  const { places } = layOut(neck, notes, zone);
  return places.every((place) => place !== null) ? places : null;
}

interface RefingerRequest {
  readonly neck: Neck;
  /** In order of time. */
  readonly notes: readonly LickNote[];
  /** How far they move, up or down. */
  readonly semitones: number;
  /** How many octaves each note moves besides; none by itself. */
  readonly octaves?: readonly number[];
  /** Where the hand is to stay; null leaves the whole neck free. */
  readonly zone: Zone | null;
  /** The same strings and distances, or the easiest places for the pitches. */
  readonly keep: 'shape' | 'pitch';
}

/** The same notes on other strings and frets. */
export interface Refingered {
  /** In order of time; without those the neck has no place for. */
  readonly notes: readonly (LickNote & { readonly midi: Midi })[];
  /** What the hands do for it, by {@link FINGERING_COSTS}. */
  readonly cost: number;
  /** Indices of the notes that lie off the neck or outside the zone. */
  readonly outOfReach: readonly number[];
}

/** Moves a lick: as the shape it is, or re-fingered at its new pitch. */
export function refinger(request: RefingerRequest): Refingered {
  const { neck, notes, semitones, zone, keep, octaves = [] } = request;
  const octave = (index: number) => octaves[index] ?? 0;
  const pitched = notes.map((note, index): Fingered => ({
    beat: note.beat,
    midi: pitchAt(neck, note) + semitones + 12 * octave(index),
    // What led from a note in another octave is struck.
    techniques:
      index > 0 && octave(index) !== octave(index - 1)
        ? note.techniques.filter((one) => !leads(one))
        : note.techniques,
  }));
  const laid =
    keep === 'pitch' ? layOut(neck, pitched, zone) : shapeOf(neck, notes, pitched, semitones, zone);
  const outside = ({ fret }: Place) => zone !== null && (fret < zone.low || fret > zone.high);
  const outOfReach = laid.places.flatMap((place, index) =>
    place === null || outside(place) ? [index] : [],
  );
  const moved = notes.flatMap((note, index) => {
    const place = at(laid.places, index);
    if (!place) return [];
    const techniques = shiftSlides(
      at(pitched, index).techniques,
      place.fret - note.fret,
      wholeNeck(neck),
    );
    return [{ ...note, ...place, techniques, midi: at(pitched, index).midi }];
  });
  return { notes: moved, cost: laid.cost, outOfReach };
}

/** The strings and distances as they are, every fret moved alike. */
function shapeOf(
  neck: Neck,
  notes: readonly LickNote[],
  pitched: readonly Fingered[],
  semitones: number,
  zone: Zone | null,
): Laid {
  const places = notes.map(({ string, fret }): Place | null => {
    const moved = fret + semitones;
    return moved < neck.capo || moved > neck.frets ? null : { string, fret: moved };
  });
  const moments = momentsOf(notes).flatMap((indices) => {
    const kept = indices.filter((index) => places[index] !== null);
    const grip = kept.flatMap((index) => places[index] ?? []);
    return kept.length === 0 ? [] : [{ grip, own: kept.map((index) => at(pitched, index)) }];
  });
  const cost = moments.reduce((sum, { grip, own }, index) => {
    const before = moments[index - 1];
    const stands = grip.map((place, which) => standCost(at(own, which), place, zone));
    const stand = stands.reduce((all, one) => all + one, 0);
    return sum + gripCost(grip) + stand + (before ? moveCost(before.grip, grip, own) : 0);
  }, 0);
  return { places, cost };
}

/**
 * Target routes: one note to land on for each chord of a form, chosen together so that the way
 * through them costs least. Solved exactly, as a shortest path over places on the neck.
 */
import { type Chord, chordName, chordNotes, sameChord } from '../chords/chords';
import { readOver, spellingsOver, spellOver } from '../chords/over';
import type { Intent } from '../lenses/lens';
import type { Material } from '../lenses/material';
import { at } from '../lists';
import {
  inZone,
  type Neck,
  openPitch,
  pitchAt,
  type Place,
  placesOf,
  stringCount,
  type Zone,
} from '../neck/neck';
import { reachOf } from '../neck/hand';
import { type Interval, type Note, pitchClass, step } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { type PathOptions, pathSolver } from '../paths/layered';
import { differentPaths } from './alternatives';
import type { Preference, RouteContour } from './kinds';
import { stepSentence } from './sentences';
import {
  HAND_FRETS,
  MIDDLE_FRETS,
  MIDDLE_REGISTER,
  ROUTE_PARTS,
  ROUTE_WEIGHTS,
  type RouteCosts,
  type RoutePart,
} from './weights';

/** One chord to be given a target. */
export interface RouteChord {
  readonly chord: Chord;
  readonly intent: Intent;
  /** What is played over it; its notes may serve as targets where the change is coasted. */
  readonly material: Material | null;
  /** A place set by hand, which the route must take. */
  readonly pin: Place | null;
}

/** What a route is made for. */
export interface RouteRequest {
  readonly neck: Neck;
  readonly chords: readonly RouteChord[];
  /** Degrees to land on, the most preferred first. */
  readonly prefer: readonly Preference[];
  /** The region to stay in; null leaves the whole neck free. */
  readonly zone: Zone | null;
  readonly contour: RouteContour | null;
  readonly loop: boolean;
  /** How many routes, the best first. */
  readonly count: number;
}

/** Where a route lands on a chord. */
export interface RouteStop extends Place {
  /** Index of the chord. */
  readonly index: number;
  readonly note: Note;
  readonly midi: Midi;
  readonly degree: Interval;
  /** Signed distance from the stop before; 0 for the first. */
  readonly halfSteps: number;
  readonly sentence: string;
}

/** A target for every chord, and what the way through them costs. */
export interface Route {
  readonly cost: number;
  readonly stops: readonly RouteStop[];
  /** What the cost is made of: these sum to it. */
  readonly parts: RouteCosts;
}

/** A place that may serve as a chord's target. */
export interface Candidate extends Place {
  readonly note: Note;
  readonly midi: Midi;
  readonly degree: Interval;
  readonly degreeCost: number;
}

const NUMBER_STEPS: Readonly<Record<string, readonly number[]>> = {
  '1': [0],
  '3': [2],
  '5': [4],
  '7': [6],
  '9': [1],
  '11': [3],
  '13': [5],
};

/** Preferences that only the chord's own tones can meet. */
const OWN_TONES: ReadonlySet<Preference> = new Set(['1', '3', '5', '7']);

/** Whether a degree over a chord is the one preferred; what stands for a third or seventh counts. */
function isPreferred({ quality }: Chord, degree: Interval, preference: Preference): boolean {
  if (preference === 'guideTones') return quality.guideTones.includes(degree);
  const steps = NUMBER_STEPS[preference] ?? [];
  const tones = quality.core;
  // Only a tone of the chord's own is its third or seventh: Bb over Cmaj7 is nobody's.
  const own = OWN_TONES.has(preference) ? tones : null;
  if (steps.includes(step(degree))) return own === null || own.includes(degree);
  const lacks = (wanted: number) => tones.every((tone) => step(tone) !== wanted);
  if (preference === '3')
    return lacks(2) && tones.includes(degree) && [1, 3].includes(step(degree));
  return preference === '7' && lacks(6) && tones.includes(degree) && step(degree) === 5;
}

const { intent: INTENT_WEIGHTS, otherNote, otherTone, preference: PREFERENCE } = ROUTE_WEIGHTS;

function degreeCost(
  { chord, intent }: RouteChord,
  degree: Interval,
  prefer: readonly Preference[],
): number {
  const weight = INTENT_WEIGHTS[intent];
  const rank = prefer.findIndex((preference) => isPreferred(chord, degree, preference));
  if (rank >= 0) return weight * PREFERENCE * rank;
  return chord.quality.degrees.includes(degree)
    ? weight * otherTone
    : otherNote + weight * otherTone;
}

/** Notes that may be landed on: the chord's, those asked for, and of the choice where it coasts. */
function landingNotes(
  { chord, intent, material }: RouteChord,
  prefer: readonly Preference[],
): readonly Note[] {
  const tones = chordNotes(chord);
  const known = new Set(tones.map(pitchClass));
  const wanted = readOver(chord, material?.notes ?? []).filter(
    ({ note, degree }) =>
      !known.has(pitchClass(note)) &&
      (intent === 'coast' || prefer.some((one) => isPreferred(chord, degree, one))),
  );
  const spelled = spellingsOver({ ...chord, bass: null }, material?.notes ?? []);
  return [...tones, ...wanted.map(({ note }) => spelled.get(pitchClass(note)) ?? note)];
}

function candidatesFor(request: RouteRequest, index: number): readonly Candidate[] {
  const { neck, zone, prefer } = request;
  const routed = at(request.chords, index);
  const { chord, pin } = routed;
  const placed = (places: readonly (Place & { readonly note: Note })[]): readonly Candidate[] => {
    const read = readOver(
      chord,
      places.map(({ note }) => note),
    );
    return places.map((place, which) => {
      const { degree } = at(read, which);
      return {
        ...place,
        midi: pitchAt(neck, place),
        degree,
        degreeCost: degreeCost(routed, degree, prefer),
      };
    });
  };
  const everywhere = placesOf(neck, landingNotes(routed, prefer));
  if (pin) {
    const midi = pitchAt(neck, pin);
    const known = everywhere.find(({ string, fret }) => string === pin.string && fret === pin.fret);
    // What was set by hand is kept, whatever it is over the chord; it costs no degree.
    const note = known?.note ?? spellOver(chord, midi);
    return placed([{ ...pin, note }]).map((one) => ({ ...one, degreeCost: 0 }));
  }
  const inside = zone ? everywhere.filter(({ fret }) => inZone(zone, fret)) : everywhere;
  const found = placed(inside.length > 0 ? inside : everywhere);
  const asked = askedAlone(prefer);
  if (asked === null) return found;
  // One degree that is asked for alone is landed on wherever the zone holds it, or a stretch beside it.
  const within = (places: readonly Candidate[]) =>
    places.filter(({ degree }) => isPreferred(chord, degree, asked));
  const own = within(found);
  if (own.length > 0 || zone === null) return own.length > 0 ? own : found;
  const reach = reachOf(neck, zone);
  const stretched = within(placed(everywhere.filter(({ fret }) => inZone(reach, fret))));
  return stretched.length > 0 ? stretched : found;
}

/** The one degree that is asked for; null where there is a choice of them. */
const askedAlone = (prefer: readonly Preference[]): Preference | null =>
  prefer.length === 1 ? (prefer[0] ?? null) : null;

const DEGREE_WORDS: Readonly<Record<Preference, string>> = {
  guideTones: 'guide tone',
  '1': 'root',
  '3': 'third',
  '5': 'fifth',
  '7': 'seventh',
  '9': 'ninth',
  '11': 'eleventh',
  '13': 'thirteenth',
};

/** What is said of a stop that is not the one degree asked for. */
function missingSays(
  { chord, pin }: RouteChord,
  degree: Interval,
  { prefer, zone }: Pick<RouteRequest, 'prefer' | 'zone'>,
): string {
  const asked = askedAlone(prefer);
  if (asked === null || pin || isPreferred(chord, degree, asked)) return '';
  const name = chordName({ ...chord, bass: null });
  return ` No ${DEGREE_WORDS[asked]} of ${name} lies ${zone ? 'in this zone' : 'on this neck'}.`;
}

/** Frets a place lies outside a zone. */
const outsideBy = (zone: Zone | null, { fret }: Place): number =>
  zone === null ? 0 : Math.max(0, zone.low - fret, fret - zone.high);

/** The pitch a contour asks for at a share of the form, in half steps about its middle. */
const CONTOUR_REACH = 7;
const CONTOUR_SHAPES: Readonly<Record<RouteContour, (share: number) => number>> = {
  level: () => 0,
  rising: (share) => CONTOUR_REACH * (2 * share - 1),
  falling: (share) => CONTOUR_REACH * (1 - 2 * share),
  arch: (share) => CONTOUR_REACH * (1 - 2 * Math.abs(2 * share - 1)),
};

/** The middle of what can be played in a zone. */
function middlePitch(neck: Neck, zone: Zone | null): Midi {
  const low = openPitch(neck, stringCount(neck)) + (zone?.low ?? neck.capo);
  const high = openPitch(neck, 1) + (zone?.high ?? Math.min(neck.frets, neck.capo + 12));
  return Math.round((low + high) / 2);
}

function registerCost(neck: Neck, midi: Midi): number {
  const lowest = openPitch(neck, stringCount(neck));
  const below = lowest + MIDDLE_REGISTER.low - midi;
  const above = midi - (lowest + MIDDLE_REGISTER.high);
  return ROUTE_WEIGHTS.register * Math.ceil(Math.max(0, below, above) / 2);
}

/** Only where the hand is free to go anywhere: in a zone the zone decides. */
function positionCost({ neck, zone }: RouteRequest, { fret }: Place): number {
  if (zone !== null) return 0;
  const below = MIDDLE_FRETS.low - (fret - neck.capo);
  const above = fret - neck.capo - MIDDLE_FRETS.high;
  return ROUTE_WEIGHTS.position * Math.ceil(Math.max(0, below, above) / 2);
}

const { movement: MOVEMENT, leap: LEAP } = ROUTE_WEIGHTS;

const MOVEMENT_COSTS: readonly number[] = MOVEMENT;
const LARGEST_MOVE = at(MOVEMENT, MOVEMENT.length - 1);

/** What it costs to move so many half steps. */
export function movementCost(halfSteps: number): number {
  const size = Math.abs(halfSteps);
  return MOVEMENT_COSTS[size] ?? LARGEST_MOVE + LEAP * (size - MOVEMENT.length + 1);
}

interface StandCosts {
  readonly degree: number;
  readonly zone: number;
  readonly register: number;
  readonly position: number;
  readonly contour: number;
}

function standCosts(request: RouteRequest, index: number, place: Candidate): StandCosts {
  const { neck, zone, contour, chords } = request;
  const shape = contour === null ? null : CONTOUR_SHAPES[contour];
  const share = chords.length < 2 ? 0 : index / (chords.length - 1);
  const wanted = shape === null ? place.midi : middlePitch(neck, zone) + shape(share);
  return {
    degree: place.degreeCost,
    zone: ROUTE_WEIGHTS.outside * outsideBy(zone, place),
    register: registerCost(neck, place.midi),
    position: positionCost(request, place),
    contour: ROUTE_WEIGHTS.contour * Math.round(Math.abs(place.midi - wanted) / 2),
  };
}

interface StepCosts {
  readonly movement: number;
  readonly hand: number;
  readonly strings: number;
  readonly repetition: number;
}

const { shift: SHIFT, skip: SKIP, again: AGAIN } = ROUTE_WEIGHTS;

const handCost = (frets: number): number =>
  frets < HAND_FRETS ? 0 : SHIFT * (frets - HAND_FRETS + 1);
const stringsCost = (strings: number): number => (strings < 2 ? 0 : SKIP * (strings - 1));

function stepCosts(from: Candidate, to: Candidate, changes: boolean): StepCosts {
  const frets = Math.abs(to.fret - from.fret);
  const strings = Math.abs(to.string - from.string);
  const same = frets === 0 && strings === 0;
  return {
    // Over a chord that only goes on, staying put says nothing false.
    movement: !changes && same ? 0 : movementCost(to.midi - from.midi),
    hand: handCost(frets),
    strings: stringsCost(strings),
    repetition: same && changes ? AGAIN : 0,
  };
}

const standSum = ({ degree, zone, register, position, contour }: StandCosts): number =>
  degree + zone + register + position + contour;
const stepSum = ({ movement, hand, strings, repetition }: StepCosts): number =>
  movement + hand + strings + repetition;

const NO_COSTS = Object.fromEntries(ROUTE_PARTS.map((part) => [part, 0])) as Record<
  RoutePart,
  number
>;

/** Everything a chord's places and their costs depend on within one request, in a word. */
const wordOf = ({ chord, intent, material, pin }: RouteChord): string =>
  [
    ...[chord.root, chord.quality.name, chord.bass, intent],
    ...[material?.name, pin?.string, pin?.fret],
  ].join(' ');

/** The best route and the best of each other kind, cheapest first; none where some chord has nowhere to land. */
export function solveRoutes(request: RouteRequest, options: PathOptions = {}): readonly Route[] {
  const { chords, loop, count, contour } = request;
  const layers = chords.map((_, index) => candidatesFor(request, index));
  const stands = layers.map((layer, index) =>
    layer.map((place) => standCosts(request, index, place)),
  );
  const changes = chords.map(({ chord }, index) => {
    const next = at(chords, (index + 1) % chords.length);
    return !sameChord(chord, next.chord);
  });
  // A shape begins anew with the form: going back to its beginning is no part of it.
  const begunAnew = contour === 'rising' || contour === 'falling';
  const closed = loop && chords.length > 1 && !begunAnew;
  const step = (layer: number, from: number, to: number) => {
    const onward = (layer + 1) % layers.length;
    return stepCosts(at(at(layers, layer), from), at(at(layers, onward), to), at(changes, layer));
  };
  const words = chords.map(wordOf);
  const alike = (layer: number): string =>
    `${words[layer] ?? ''} > ${words[layer + 1] ?? ''} ${changes[layer] ?? true}`;
  const solver = pathSolver({
    sizes: layers.map((layer) => layer.length),
    node: (layer, node) => standSum(at(at(stands, layer), node)),
    edge: (layer, from, to) => {
      const here = layers[layer]?.[from];
      const there = layers[layer + 1 === layers.length ? 0 : layer + 1]?.[to];
      return here && there ? stepSum(stepCosts(here, there, changes[layer] ?? true)) : Infinity;
    },
    loop: closed,
    // A shape that is asked for makes every place in the form another.
    ...(contour === null ? { alike } : {}),
  });
  return differentPaths(chords, layers, count, solver, options).map(({ cost, nodes }): Route => {
    const parts = { ...NO_COSTS };
    const add = (costs: Partial<RouteCosts>) => {
      for (const [part, value] of Object.entries(costs)) parts[part as RoutePart] += value;
    };
    nodes.forEach((node, index) => {
      add({ ...at(at(stands, index), node) });
      const onward = nodes[index + 1] ?? (closed ? nodes[0] : undefined);
      if (onward !== undefined) add({ ...step(index, node, onward) });
    });
    return {
      cost,
      parts,
      stops: stopsOf(
        request,
        nodes.map((node, index) => at(at(layers, index), node)),
      ),
    };
  });
}

function stopsOf(request: RouteRequest, places: readonly Candidate[]): readonly RouteStop[] {
  return places.map(({ string, fret, note, midi, degree }, index): RouteStop => {
    const before = places[index - 1];
    const halfSteps = before ? midi - before.midi : 0;
    const stop = { index, string, fret, note, midi, degree, halfSteps };
    const routed = at(request.chords, index);
    const says = stepSentence(routed.chord, stop, before ?? null);
    return { ...stop, sentence: `${says}${missingSays(routed, degree, request)}` };
  });
}

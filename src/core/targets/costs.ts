/** What a route costs: each place it stands at, and each step between two. */
import { at } from '../lists';
import { type Neck, openPitch, type Place, stringCount, type Zone } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import type { Candidate } from './candidates';
import type { RouteContour } from './kinds';
import type { RouteRequest } from './request';
import { HAND_FRETS, MIDDLE_FRETS, MIDDLE_REGISTER, ROUTE_WEIGHTS } from './weights';

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

/** What it costs to stand at a place over a chord of the form. */
export function standCosts(request: RouteRequest, index: number, place: Candidate): StandCosts {
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

/** What it costs to go from one place to the next; `changes` tells whether the chord does. */
export function stepCosts(from: Candidate, to: Candidate, changes: boolean): StepCosts {
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

export const standSum = ({ degree, zone, register, position, contour }: StandCosts): number =>
  degree + zone + register + position + contour;
export const stepSum = ({ movement, hand, strings, repetition }: StepCosts): number =>
  movement + hand + strings + repetition;

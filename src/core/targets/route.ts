/**
 * Target routes: one note to land on for each chord of a form, chosen together so that the way
 * through them costs least. Solved exactly, as a shortest path over places on the neck.
 */
import { sameChord } from '../chords/chords';
import { at } from '../lists';
import type { Place } from '../neck/neck';
import type { Interval, Note } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { type PathOptions, pathSolver } from '../paths/layered';
import { differentPaths } from './alternatives';
import { type Candidate, candidatesFor, missingSays } from './candidates';
import { standCosts, standSum, stepCosts, stepSum } from './costs';
import type { RouteChord, RouteRequest } from './request';
import { stepSentence } from './sentences';
import { ROUTE_PARTS, type RouteCosts, type RoutePart } from './weights';

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

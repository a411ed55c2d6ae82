/**
 * The cheapest walk through layers of places where what a move costs depends also on how its start
 * was come to: each place is taken once for every such state. Exact, by dynamic programming
 * (Bellman 1957).
 */
import { at } from '../lists';

interface WalkLayer {
  /** What it costs to stand on each place. */
  readonly stands: readonly number[];
  /** For the places of the layer before by those of this one: what a move costs, and its way. */
  readonly into?: { readonly costs: Float64Array; readonly moves: Int8Array };
}

interface WalkStates {
  /** How many there are. */
  readonly states: number;
  /** Those a walk may begin in. */
  readonly begin: readonly number[];
  /** The state a move of some way leads to from another, and what that costs. */
  readonly turn: (
    layer: number,
    state: number,
    move: number,
  ) => { readonly next: number; readonly cost: number };
}

const WAYS = [-1, 0, 1] as const;

/** The place taken in each layer; none where there are no layers or one has no place. */
export function cheapestWalk(
  layers: readonly WalkLayer[],
  { states, begin, turn }: WalkStates,
): readonly number[] {
  const first = layers[0];
  if (!first || layers.some(({ stands }) => stands.length === 0)) return [];
  let costs = new Float64Array(first.stands.length * states).fill(Infinity);
  for (const [place, cost] of first.stands.entries()) {
    for (const state of begin) costs[place * states + state] = cost;
  }
  const backs: Int32Array[] = [];
  for (let layer = 1; layer < layers.length; layer++) {
    const { stands, into } = at(layers, layer);
    if (!into) return [];
    const before = at(layers, layer - 1).stands.length;
    const here = stands.length;
    const next = new Float64Array(here * states).fill(Infinity);
    const back = new Int32Array(here * states);
    const turns = Array.from({ length: states }, (_, state) =>
      WAYS.map((way) => turn(layer, state, way)),
    );
    for (let from = 0; from < before; from++) {
      for (let state = 0; state < states; state++) {
        const so = costs[from * states + state] as number;
        if (so === Infinity) continue;
        const ways = at(turns, state);
        for (let to = 0; to < here; to++) {
          const edge = from * here + to;
          const way = at(ways, (into.moves[edge] as number) + 1);
          const cost = so + (into.costs[edge] as number) + way.cost;
          const node = to * states + way.next;
          if (cost < (next[node] as number)) {
            next[node] = cost;
            back[node] = from * states + state;
          }
        }
      }
    }
    for (let to = 0; to < here; to++) {
      for (let state = 0; state < states; state++) {
        next[to * states + state] = (next[to * states + state] as number) + at(stands, to);
      }
    }
    backs.push(back);
    costs = next;
  }
  let node = costs.reduce((best, cost, index) => (cost < at(costs, best) ? index : best), 0);
  const walk = [Math.floor(node / states)];
  for (const back of backs.reverse()) {
    node = at(back, node);
    walk.push(Math.floor(node / states));
  }
  return walk.reverse();
}

/**
 * Best paths through layers: one node from each layer, the sum of what nodes and steps cost as
 * small as can be. Exact, by dynamic programming (Bellman 1957), k paths kept at every node; a
 * closed loop is solved once for each first node that can still matter.
 *
 * @example
 * bestPaths({ sizes: [2, 2], node: (_, n) => n, edge: () => 0, loop: false }, 1)
 * // [{ cost: 0, nodes: [0, 0] }]
 */
import { at, range } from '../lists';

export interface LayeredGraph {
  /** Nodes in each layer; a layer without any makes the graph impassable. */
  readonly sizes: readonly number[];
  /** Cost of standing on a node; Infinity forbids it. */
  readonly node: (layer: number, node: number) => number;
  /** Cost of the step from a node of a layer to one of the next; round from the last to the first in a loop. */
  readonly edge: (layer: number, from: number, to: number) => number;
  readonly loop: boolean;
}

export interface Path {
  readonly cost: number;
  /** The node taken in each layer. */
  readonly nodes: readonly number[];
}

export interface PathOptions {
  /** Told the share of the work done, 0–1. */
  readonly onProgress?: ((share: number) => void) | undefined;
}

/** Steps into each layer, with what it costs to stand where they lead. */
type Matrices = readonly Float64Array[];

function matricesOf({ sizes, node, edge }: LayeredGraph): Matrices {
  return range(1, sizes.length).map((layer) => {
    const before = at(sizes, layer - 1);
    const here = at(sizes, layer);
    const matrix = new Float64Array(before * here);
    for (let to = 0; to < here; to++) {
      const stand = node(layer, to);
      for (let from = 0; from < before; from++) {
        matrix[to * before + from] = stand + edge(layer - 1, from, to);
      }
    }
    return matrix;
  });
}

/** The cheapest way to every node of the last layer from given costs in the first. */
function leastCosts(sizes: readonly number[], matrices: Matrices, first: Float64Array) {
  let costs = first;
  for (const [index, matrix] of matrices.entries()) {
    const before = at(sizes, index);
    const next = new Float64Array(at(sizes, index + 1));
    for (let to = 0; to < next.length; to++) {
      let least = Infinity;
      const row = to * before;
      for (let from = 0; from < before; from++) {
        const cost = (costs[from] as number) + (matrix[row + from] as number);
        if (cost < least) least = cost;
      }
      next[to] = least;
    }
    costs = next;
  }
  return costs;
}

/** One of the best ways to a node: where it came from, and which of the ways there it continues. */
interface Way {
  readonly cost: number;
  readonly from: number;
  readonly rank: number;
}

/** Keeps the `count` cheapest, in order; an equal one comes after those already there. */
function insert(ways: Way[], way: Way, count: number): void {
  let place = ways.length;
  while (place > 0 && way.cost < at(ways, place - 1).cost) place -= 1;
  if (place >= count) return;
  ways.splice(place, 0, way);
  if (ways.length > count) ways.pop();
}

/** The best few ways to every node, layer by layer, from given costs in the first. */
function bestWays(
  sizes: readonly number[],
  matrices: Matrices,
  first: Float64Array,
  count: number,
): readonly (readonly (readonly Way[])[])[] {
  const layers: Way[][][] = [
    [...first].map((cost) => (cost < Infinity ? [{ cost, from: -1, rank: 0 }] : [])),
  ];
  for (const [index, matrix] of matrices.entries()) {
    const before = at(layers, index);
    const width = at(sizes, index);
    layers.push(
      range(0, at(sizes, index + 1)).map((to) => {
        const ways: Way[] = [];
        for (let from = 0; from < width; from++) {
          const step = matrix[to * width + from] as number;
          if (step === Infinity) continue;
          for (const [rank, way] of at(before, from).entries()) {
            const cost = way.cost + step;
            if (ways.length === count && cost >= at(ways, count - 1).cost) break;
            insert(ways, { cost, from, rank }, count);
          }
        }
        return ways;
      }),
    );
  }
  return layers;
}

function trace(
  layers: readonly (readonly (readonly Way[])[])[],
  node: number,
  rank: number,
): readonly number[] {
  const nodes: number[] = [];
  let here = node;
  let which = rank;
  for (let layer = layers.length - 1; layer >= 0; layer--) {
    nodes.push(here);
    const way = at(at(at(layers, layer), here), which);
    here = way.from;
    which = way.rank;
  }
  return nodes.reverse();
}

const only = (size: number, node: number, cost: number): Float64Array => {
  const costs = new Float64Array(size).fill(Infinity);
  costs[node] = cost;
  return costs;
};

/** The `count` cheapest paths, cheapest first; fewer where there are no more, none where none passes. */
export function bestPaths(
  graph: LayeredGraph,
  count: number,
  { onProgress }: PathOptions = {},
): readonly Path[] {
  const { sizes, node, edge, loop } = graph;
  if (sizes.length === 0 || sizes.includes(0)) return [];
  const matrices = matricesOf(graph);
  const last = sizes.length - 1;
  const found: Path[] = [];
  const take = (first: Float64Array, closing: (end: number) => number) => {
    const layers = bestWays(sizes, matrices, first, count);
    for (const [end, ways] of at(layers, last).entries()) {
      for (const [rank, { cost }] of ways.entries()) {
        const whole = cost + closing(end);
        const worst = found.length < count ? Infinity : at(found, found.length - 1).cost;
        if (whole === Infinity || whole >= worst) continue;
        const nodes = trace(layers, end, rank);
        let place = found.length;
        while (place > 0 && whole < at(found, place - 1).cost) place -= 1;
        found.splice(place, 0, { cost: whole, nodes });
        if (found.length > count) found.pop();
      }
    }
  };
  const starts = range(0, at(sizes, 0));
  if (!loop) {
    take(
      Float64Array.from(starts, (start) => node(0, start)),
      () => 0,
    );
    return found;
  }
  const closing = (start: number) => (end: number) => edge(last, end, start);
  const bounds = starts.map((start, done) => {
    const costs = leastCosts(sizes, matrices, only(starts.length, start, node(0, start)));
    onProgress?.((0.8 * done) / starts.length);
    return { start, bound: Math.min(...costs.map((cost, end) => cost + closing(start)(end))) };
  });
  for (const { start, bound } of bounds.sort((a, b) => a.bound - b.bound || a.start - b.start)) {
    const worst = found.length < count ? Infinity : at(found, found.length - 1).cost;
    if (bound >= worst) break;
    take(only(starts.length, start, node(0, start)), closing(start));
  }
  onProgress?.(1);
  return found;
}

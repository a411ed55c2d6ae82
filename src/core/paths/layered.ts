/**
 * Best paths through layers: one node from each layer, the sum of what nodes and steps cost as
 * small as can be. Exact, by dynamic programming from the end (Bellman 1957); a closed loop is
 * solved once for each first node that can still matter.
 *
 * @example
 * bestPaths({ sizes: [2, 2], node: (_, n) => n, edge: () => 0, loop: false }, 1)
 * // [{ cost: 0, nodes: [0, 0] }]
 */
import { at, range } from '../lists';

/** Layers of nodes, gone through one after the other. */
export interface LayeredGraph {
  /** Nodes in each layer; a layer without any makes the graph impassable. */
  readonly sizes: readonly number[];
  /** Cost of standing on a node; Infinity forbids it. */
  readonly node: (layer: number, node: number) => number;
  /** Cost of the step from a node of a layer to one of the next; round from the last to the first in a loop. */
  readonly edge: (layer: number, from: number, to: number) => number;
  readonly loop: boolean;
  /** A word for a layer with the next: where two have the same, all their costs are the same. */
  readonly alike?: ((layer: number) => string) | undefined;
}

/** A way through all layers. */
export interface Path {
  readonly cost: number;
  /** The node taken in each layer. */
  readonly nodes: readonly number[];
}

/** Which paths are looked for, and who is told of the progress. */
export interface PathOptions {
  /** A word for the first node of a path: of those with one word only the cheapest path is found. */
  readonly kindOf?: ((first: number) => string | number) | undefined;
  /** Which nodes a path may take; every one by itself. */
  readonly allows?: ((layer: number, node: number) => boolean) | undefined;
  /** Told the share of the work done, 0–1. */
  readonly onProgress?: ((share: number) => void) | undefined;
}

/** Steps out of each layer but the last, with what it costs to stand where they lead. */
type Matrices = readonly Float64Array[];

function matricesOf({ sizes, node, edge, alike }: LayeredGraph): Matrices {
  const known = new Map<string, Float64Array>();
  return range(0, sizes.length - 1).map((layer) => {
    const word = alike?.(layer);
    const same = word === undefined ? undefined : known.get(word);
    if (same) return same;
    const here = at(sizes, layer);
    const onward = at(sizes, layer + 1);
    const stands = new Float64Array(onward);
    for (let to = 0; to < onward; to++) stands[to] = node(layer + 1, to);
    const matrix = new Float64Array(here * onward);
    for (let from = 0; from < here; from++) {
      const row = from * onward;
      for (let to = 0; to < onward; to++) {
        matrix[row + to] = (stands[to] as number) + edge(layer, from, to);
      }
    }
    if (word !== undefined) known.set(word, matrix);
    return matrix;
  });
}

/** What the rest of the way costs at the least, from every node of every layer. */
function costsToGo(
  sizes: readonly number[],
  matrices: Matrices,
  ends: Float64Array,
): readonly Float64Array[] {
  const rest: Float64Array[] = [ends];
  for (let layer = matrices.length - 1; layer >= 0; layer--) {
    const matrix = at(matrices, layer);
    const after = at(rest, rest.length - 1);
    const width = after.length;
    const here = new Float64Array(at(sizes, layer));
    for (let from = 0; from < here.length; from++) {
      let least = Infinity;
      const row = from * width;
      for (let to = 0; to < width; to++) {
        const cost = (matrix[row + to] as number) + (after[to] as number);
        if (cost < least) least = cost;
      }
      here[from] = least;
    }
    rest.push(here);
  }
  return rest.reverse();
}

/** A path as far as it has come, with what it will have cost in the end at the least. */
interface Partial {
  readonly least: number;
  readonly cost: number;
  readonly layer: number;
  readonly node: number;
  readonly before: Partial | null;
  /** The word for its first node. */
  readonly kind: string | number | undefined;
  /** The exact cost of the rest; null for a first node of a loop not yet looked into. */
  readonly toGo: readonly Float64Array[] | null;
  readonly order: number;
}

/** Cheaper first; of equal ones the one that has come further, then the one found earlier. */
const comesBefore = (a: Partial, b: Partial): boolean =>
  a.least !== b.least
    ? a.least < b.least
    : a.layer !== b.layer
      ? a.layer > b.layer
      : a.order < b.order;

function push(heap: Partial[], item: Partial): void {
  let place = heap.push(item) - 1;
  while (place > 0) {
    const parent = (place - 1) >> 1;
    if (!comesBefore(item, at(heap, parent))) break;
    heap[place] = at(heap, parent);
    place = parent;
  }
  heap[place] = item;
}

function pop(heap: Partial[]): Partial | null {
  const top = heap[0];
  const last = heap.pop();
  if (top === undefined || last === undefined) return null;
  if (heap.length === 0) return top;
  let place = 0;
  for (;;) {
    let child = 2 * place + 1;
    if (child >= heap.length) break;
    if (child + 1 < heap.length && comesBefore(at(heap, child + 1), at(heap, child))) child += 1;
    if (!comesBefore(at(heap, child), last)) break;
    heap[place] = at(heap, child);
    place = child;
  }
  heap[place] = last;
  return top;
}

function nodesOf(path: Partial): readonly number[] {
  const nodes: number[] = [];
  for (let here: Partial | null = path; here !== null; here = here.before) nodes.push(here.node);
  return nodes.reverse();
}

/** Finds the `count` cheapest paths of a graph, cheapest first, again and again for other nodes. */
export type PathSolver = (count: number, options?: PathOptions) => readonly Path[];

/** What it costs to end on each node, closed by a first node where the graph is a loop. */
type Ends = (starts: readonly number[]) => Float64Array;

function solveOnce(
  graph: LayeredGraph,
  whole: Matrices,
  count: number,
  { allows, kindOf, onProgress }: PathOptions,
): readonly Path[] {
  const { sizes, node, edge, loop } = graph;
  const last = sizes.length - 1;
  const allowed = (layer: number, one: number): boolean => allows?.(layer, one) ?? true;
  const matrices = allows ? narrowed(sizes, whole, allows) : whole;
  const starts = range(0, at(sizes, 0)).filter((start) => allowed(0, start));
  const open: Partial[] = [];
  let order = 0;
  const endsFor: Ends = (closedBy) =>
    Float64Array.from({ length: at(sizes, last) }, (_, end) =>
      loop ? Math.min(...closedBy.map((start) => edge(last, end, start))) : 0,
    );
  // Closed by whatever first node is cheapest: never more than what closing the loop will cost.
  const relaxed = costsToGo(sizes, matrices, endsFor(starts));
  let looked = 0;
  const begin = (start: number, toGo: readonly Float64Array[], exact: boolean) => {
    const cost = node(0, start);
    const least = cost + at(at(toGo, 0), start);
    if (least === Infinity) return;
    const kind = kindOf?.(start);
    const begun = { least, cost, layer: 0, node: start, before: null, kind, order: order++ };
    push(open, { ...begun, toGo: exact ? toGo : null });
  };
  // With one node to begin on, closed by it, that is what it will cost.
  for (const start of starts) begin(start, relaxed, !loop || starts.length === 1);
  const found: Path[] = [];
  const done = new Set<string | number>();
  while (found.length < count) {
    const path = pop(open);
    if (!path) break;
    const { layer, cost, toGo, kind } = path;
    if (kind !== undefined && done.has(kind)) continue;
    if (toGo === null) {
      // Only a first node that can still matter is worth the exact cost of its loop.
      begin(path.node, costsToGo(sizes, matrices, endsFor([path.node])), true);
      looked += 1;
      onProgress?.((0.9 * looked) / starts.length);
      continue;
    }
    if (layer === last) {
      if (kind !== undefined) done.add(kind);
      found.push({ cost: path.least, nodes: nodesOf(path) });
      continue;
    }
    const matrix = at(matrices, layer);
    const rest = at(toGo, layer + 1);
    const row = path.node * rest.length;
    for (let to = 0; to < rest.length; to++) {
      const here = cost + (matrix[row + to] as number);
      const least = here + (rest[to] as number);
      if (least === Infinity) continue;
      push(open, {
        least,
        cost: here,
        layer: layer + 1,
        node: to,
        before: path,
        kind,
        toGo,
        order: order++,
      });
    }
  }
  onProgress?.(1);
  return found;
}

/** The matrices with every step to a node that may not be taken forbidden. */
function narrowed(
  sizes: readonly number[],
  matrices: Matrices,
  allows: NonNullable<PathOptions['allows']>,
): Matrices {
  return matrices.map((matrix, layer) => {
    const width = at(sizes, layer + 1);
    const closed = range(0, width).filter((to) => !allows(layer + 1, to));
    if (closed.length === 0) return matrix;
    const copy = matrix.slice();
    for (let row = 0; row < copy.length; row += width) {
      for (const to of closed) copy[row + to] = Infinity;
    }
    return copy;
  });
}

/**
 * A solver of a graph: fewer paths where there are no more, none where none passes. Best-first
 * search (Hart, Nilsson and Raphael 1968) with the exact cost of the rest as its guide, so that it
 * never leaves the cheapest paths. What the steps cost is worked out once for all that is asked.
 */
export function pathSolver(graph: LayeredGraph): PathSolver {
  const { sizes } = graph;
  if (sizes.length === 0 || sizes.includes(0)) return () => [];
  const matrices = matricesOf(graph);
  return (count, options = {}) => solveOnce(graph, matrices, count, options);
}

/** The `count` cheapest paths, cheapest first. */
export const bestPaths = (
  graph: LayeredGraph,
  count: number,
  options: PathOptions = {},
): readonly Path[] => pathSolver(graph)(count, options);

/** Index of the least of some costs, the first of equal ones. */
function leastOf(count: number, cost: (index: number) => number): number {
  let best = 0;
  let least = cost(0);
  for (let index = 1; index < count; index++) {
    const here = cost(index);
    if (here < least) [best, least] = [index, here];
  }
  return best;
}

/**
 * The cheapest path alone, where nothing closes it: with the exact cost of the rest each step is known. Null
 * where none passes.
 *
 * @example cheapestPath({ sizes: [2, 2], node: (_, node) => node, edge: () => 0 }).nodes; // [0,0]
 */
export function cheapestPath(graph: Omit<LayeredGraph, 'loop'>): Path | null {
  const { sizes, node } = graph;
  if (sizes.length === 0 || sizes.includes(0)) return null;
  const matrices = matricesOf({ ...graph, loop: false });
  const rest = costsToGo(sizes, matrices, new Float64Array(at(sizes, sizes.length - 1)));
  const toGo = (layer: number) => at(rest, layer);
  const first = leastOf(at(sizes, 0), (start) => node(0, start) + (toGo(0)[start] as number));
  const cost = node(0, first) + (toGo(0)[first] as number);
  if (cost === Infinity) return null;
  const nodes = [first];
  for (const [layer, matrix] of matrices.entries()) {
    const row = at(nodes, layer) * at(sizes, layer + 1);
    const onward = toGo(layer + 1);
    nodes.push(
      leastOf(onward.length, (to) => (matrix[row + to] as number) + (onward[to] as number)),
    );
  }
  return { cost, nodes };
}

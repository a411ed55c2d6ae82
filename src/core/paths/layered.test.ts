import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { at, range } from '../lists';
import { bestPaths, cheapestPath, type LayeredGraph } from './layered';
import { runs } from '$tests/laws';

/** Every path, cheapest first. */
function byBruteForce({ sizes, node, edge, loop }: LayeredGraph): readonly number[] {
  const paths = sizes.reduce<readonly (readonly number[])[]>(
    (found, size) => found.flatMap((path) => range(0, size).map((next) => [...path, next])),
    [[]],
  );
  return paths
    .map((path) => {
      const stands = path.reduce((sum, place, layer) => sum + node(layer, place), 0);
      const steps = path
        .slice(1)
        .reduce((sum, place, layer) => sum + edge(layer, at(path, layer), place), 0);
      const last = path.length - 1;
      return stands + steps + (loop ? edge(last, at(path, last), at(path, 0)) : 0);
    })
    .filter((cost) => cost < Infinity)
    .toSorted((a, b) => a - b);
}

const graphs = fc
  .record({
    sizes: fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 5 }),
    costs: fc.array(
      fc.oneof(
        { arbitrary: fc.integer({ min: 0, max: 9 }), weight: 9 },
        { arbitrary: fc.constant(Infinity), weight: 1 },
      ),
      {
        minLength: 97,
        maxLength: 97,
      },
    ),
    loop: fc.boolean(),
  })
  .map(({ sizes, costs, loop }): LayeredGraph => ({
    sizes,
    node: (layer, node) => at(costs, (layer * 7 + node) % 97),
    edge: (layer, from, to) => at(costs, (layer * 17 + from * 5 + to * 3 + 11) % 97),
    loop,
  }));

test('the cheapest path alone is the first of the best where nothing closes it', () => {
  fc.assert(
    fc.property(graphs, (made) => {
      const graph = { ...made, loop: false };
      const [best] = bestPaths(graph, 1);
      const found = cheapestPath(graph);
      expect(found?.cost).toBe(best?.cost);
      expect(found?.nodes).toEqual(best?.nodes);
    }),
    runs(400),
  );
  expect(cheapestPath({ sizes: [], node: () => 0, edge: () => 0 })).toBeNull();
  expect(cheapestPath({ sizes: [2, 0], node: () => 0, edge: () => 0 })).toBeNull();
});

describe('best paths', () => {
  test('cost what the cheapest cost by brute force, in order, and are all different', () => {
    fc.assert(
      fc.property(graphs, fc.integer({ min: 1, max: 6 }), (graph, count) => {
        const found = bestPaths(graph, count);
        expect(found.map(({ cost }) => cost)).toEqual(byBruteForce(graph).slice(0, count));
        expect(new Set(found.map(({ nodes }) => nodes.join())).size).toBe(found.length);
      }),
      runs(150),
    );
  });

  test('the cost of each is the cost of its own nodes and steps', () => {
    fc.assert(
      fc.property(graphs, (graph) => {
        for (const { cost, nodes } of bestPaths(graph, 3)) {
          const only = { ...graph, sizes: graph.sizes.map(() => 1) };
          const alone = byBruteForce({
            ...only,
            node: (layer) => graph.node(layer, at(nodes, layer)),
            edge: (layer) =>
              graph.edge(layer, at(nodes, layer), at(nodes, (layer + 1) % nodes.length)),
          });
          expect(alone).toEqual([cost]);
        }
      }),
    );
  });

  test('no layers, an empty layer, or no way through: nothing', () => {
    const free = { node: () => 0, edge: () => 0, loop: false };
    expect(bestPaths({ ...free, sizes: [] }, 2)).toEqual([]);
    expect(bestPaths({ ...free, sizes: [2, 0] }, 2)).toEqual([]);
    expect(bestPaths({ ...free, sizes: [2, 2], edge: () => Infinity }, 2)).toEqual([]);
  });

  test('tells how far it has come', () => {
    const told: number[] = [];
    const graph = { sizes: [3, 3], node: () => 1, edge: () => 1, loop: true };
    bestPaths(graph, 1, { onProgress: (share) => told.push(share) });
    expect(told.at(-1)).toBe(1);
    expect(told).toEqual(told.toSorted((a, b) => a - b));
  });
});

/** Notes without strings laid on a neck: where the hand moves least. */
import { fretFor, type Neck, type Place, stringCount } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import { at, range } from '../lists';
import { bestPaths } from '../paths/layered';

const HIGH = 12;

/** A place for every pitch, chosen together; null where a pitch lies off the neck. */
export function placePitches(neck: Neck, pitches: readonly Midi[]): readonly Place[] | null {
  const layers = pitches.map((midi) =>
    range(1, stringCount(neck) + 1).flatMap((string): readonly Place[] => {
      const fret = fretFor(neck, string, midi);
      return fret === null ? [] : [{ string, fret }];
    }),
  );
  if (layers.some((layer) => layer.length === 0)) return null;
  const [best] = bestPaths(
    {
      sizes: layers.map((layer) => layer.length),
      node: (layer, node) => Math.max(0, at(at(layers, layer), node).fret - HIGH),
      edge: (layer, from, to) => {
        const here = at(at(layers, layer), from);
        const there = at(at(layers, layer + 1), to);
        // Moving along the neck is the hand's work; crossing strings is the picking hand's.
        const shift = here.fret === 0 || there.fret === 0 ? 1 : Math.abs(here.fret - there.fret);
        return (
          2 * Math.max(0, shift - 3) + shift + Math.max(0, Math.abs(here.string - there.string) - 1)
        );
      },
      loop: false,
    },
    1,
  );
  return best ? best.nodes.map((node, layer) => at(at(layers, layer), node)) : null;
}

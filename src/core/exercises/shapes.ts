/** Shapes an exercise plays over one chord: triads, inversions, a shape that shifts. */
import type { Chord } from '../chords/chords';
import type { Collection } from '../collections/collections';
import { triadsInside } from '../collections/inside';
import { matchingPentatonic } from '../collections/pentatonics';
import type { ChordSpan } from '../lines/spans';
import { at, modulo, range } from '../lists';
import { HAND, type Placed, spanOf } from '../neck/fingering';
import { underHand } from '../neck/hand';
import { type Neck, pitchAt, placesOf, stringCount, type Zone } from '../neck/neck';
import { isVoiced, type Voicing, voicingsOn } from '../neck/voicings';
import { bestPaths } from '../paths/layered';
import type { Moment } from './rungs';

/** The pentatonic that is played, or the chord's own where something else is. */
export function pentatonicOf({ span }: Moment): Collection {
  const { collection: chosen } = span.material;
  return chosen?.kind.family === 'pentatonics' ? chosen : matchingPentatonic(span.chord);
}

/** The triads inside a pentatonic, the chord's own among them first. */
export function triadsOf(moment: Moment): readonly Chord[] {
  const inside = triadsInside(pentatonicOf(moment));
  const plain = inside.filter(({ quality }) => quality.name === '' || quality.name === 'm');
  return plain.length >= 2 ? plain : inside;
}

/** The inversions of a chord along some strings, lowest first: of its triad, or on four of all. */
export function inversionsAlong({ neck, span, strings }: Moment): readonly Voicing[] {
  const four = strings.length > 3 && isVoiced(span.chord, 'drop-2');
  return voicingsOn(neck, span.chord, four ? 'drop-2' : 'triad', strings.slice(0, four ? 4 : 3));
}

/** A motif in steps from where it begins. */
export const MOTIF = [0, 1, 2, 1, 3, 2, 1, 0] as const;

/** What a motif plays above the root of what is played over each chord, under one hand. */
type Shape = readonly Placed[];

/** A note of a motif is found in so many frets from its root. */
const shapeAt = (neck: Neck, { material }: ChordSpan, root: Placed): Shape => {
  const hand = { low: root.fret, high: Math.min(neck.frets, root.fret + HAND.plain - 1) };
  return underHand(neck, material.notes, hand)
    .filter((rung) => pitchAt(neck, rung) >= pitchAt(neck, root))
    .slice(0, Math.max(...MOTIF) + 1);
};

const OCTAVE = 12;

/** What a place for a shape costs, in frets. */
const SHIFT_COSTS = {
  /** A fret outside the zone. */
  outside: 1,
  /** A fret further than the shorter way to the next root: a shape never leaps an octave where the neck allows another way. */
  further: 24,
  /** At the nut a hand lies otherwise. */
  nut: 3,
  /** A shape the neck does not hold whole. */
  cut: 200,
} as const;
/** Strings a shape needs over the one it is rooted on. */
const OVER_ROOT = 2;
/** Of strings as good, the one players root their shapes on. */
const ROOTED = 5;

/**
 * The shape for each chord, as one unit on one set of strings: the roots move on the shorter way, as near to
 * the zone as the whole of it comes.
 */
export function shiftedShapes(
  neck: Neck,
  zone: Zone,
  spans: readonly ChordSpan[],
): readonly Shape[] {
  const strings = range(Math.min(stringCount(neck), OVER_ROOT + 1), stringCount(neck) + 1);
  const ways = strings.map((string) => {
    const layers = spans.map((span) =>
      placesOf(neck, [span.material.root])
        .filter((place) => place.string === string)
        .map((root) => ({ root, shape: shapeAt(neck, span, root) })),
    );
    const node = (layer: number, place: number): number => {
      const { root, shape } = at(at(layers, layer), place);
      const { low, high } = spanOf(shape);
      const outside = Math.max(0, zone.low - low) + Math.max(0, high - zone.high);
      const cut = shape.length <= Math.max(...MOTIF) ? SHIFT_COSTS.cut : 0;
      return SHIFT_COSTS.outside * outside + (root.fret === neck.capo ? SHIFT_COSTS.nut : 0) + cut;
    };
    const edge = (layer: number, from: number, to: number): number => {
      const next = at(layers, (layer + 1) % layers.length);
      const move = at(next, to).root.fret - at(at(layers, layer), from).root.fret;
      const up = modulo(move, OCTAVE);
      return SHIFT_COSTS.further * (Math.abs(move) - Math.min(up, OCTAVE - up));
    };
    const sizes = layers.map((layer) => layer.length);
    const [best] = bestPaths({ sizes, node, edge, loop: false }, 1);
    return { string, layers, best };
  });
  const found = ways.flatMap(({ string, layers, best }) =>
    best ? [{ cost: best.cost + Math.abs(string - ROOTED) / 10, nodes: best.nodes, layers }] : [],
  );
  const first = found[0];
  if (!first) return [];
  const { layers, nodes } = found.reduce((a, b) => (b.cost < a.cost ? b : a), first);
  return nodes.map((node, layer) => at(at(layers, layer), node).shape);
}

/** Ranking: what speaks for a suggestion and against it, as a sum of named parts. */
import { countBits } from '../harmony/membership';
import type { Assessment } from './assess';
import type { Suggestion } from './lens';
import { type Lens, LENS_TABLE } from './table';
import type { Material } from './material';

/** What each part of the sum weighs. */
export const WEIGHTS = {
  /** All guide tones covered. */
  guideTones: 8,
  /** All chord tones covered. */
  tones: 4,
  /** For each note that clashes when held. */
  clash: -1.5,
  /** For each colour gained, up to three. */
  colour: 1,
  /** All notes shared with a neighbour's choice. */
  shared: 2,
  /** For each natural note that the symbol rules out. */
  against: -1.5,
  /** For each note outside the key. */
  outside: -0.5,
  /** In common use, or the default by function. */
  common: 3.5,
  /** The chord's own material: its mode, its tones, its pentatonic. */
  own: 1.5,
  /** The lens is one the player prefers. */
  preferred: 4,
  /** What a lens offers later, or not as common, keeps behind the rest of it by this much. */
  order: -0.01,
} as const;

/** What the rank of an option is made of. */
export type RankParts = Readonly<Record<keyof typeof WEIGHTS, number>>;

const MOST_COLOURS = 3;

/** Share of a material's notes that another holds too, 0–1. */
export const sharedShare = (a: Material, b: Material): number =>
  countBits(a.mask & b.mask) / Math.max(1, Math.max(countBits(a.mask), countBits(b.mask)));

/** What the neighbours chose, and which lenses the player prefers. */
export interface RankContext {
  readonly neighbours: readonly Material[];
  readonly preferred: readonly Lens[];
}

const share = (part: number, whole: number): number => (whole === 0 ? 0 : part / whole);

/** The parts that the chord's place alone decides. */
export function ownParts({ lens, common }: Suggestion, assessment: Assessment): RankParts {
  const { covered, missing, clashes, colours, against, outsideKey, guideTones, guideToneCount } =
    assessment;
  return {
    guideTones: WEIGHTS.guideTones * share(guideTones.length, guideToneCount),
    tones: WEIGHTS.tones * share(covered.length, covered.length + missing.length),
    clash: WEIGHTS.clash * clashes.length,
    colour: WEIGHTS.colour * Math.min(MOST_COLOURS, colours.length),
    shared: 0,
    against: WEIGHTS.against * against.length,
    outside: WEIGHTS.outside * outsideKey.length,
    common: common ? WEIGHTS.common : 0,
    own: LENS_TABLE[lens].own ? WEIGHTS.own : 0,
    preferred: 0,
    order: 0,
  };
}

/** The same with what the neighbours chose and the player prefers. */
export function withNeighbours(
  parts: RankParts,
  { lens, material }: Suggestion,
  { neighbours, preferred }: RankContext,
): RankParts {
  if (neighbours.length === 0 && !preferred.includes(lens)) return parts;
  const shared = neighbours.reduce((sum, other) => sum + sharedShare(material, other), 0);
  return {
    ...parts,
    shared: WEIGHTS.shared * share(shared, neighbours.length),
    preferred: preferred.includes(lens) ? WEIGHTS.preferred : 0,
  };
}

const PARTS = Object.keys(WEIGHTS) as readonly (keyof RankParts)[];

/** The sum of its parts. */
export const rankSum = (parts: RankParts): number =>
  PARTS.reduce((sum, part) => sum + parts[part], 0);

/** Rhythms: where notes may begin in a metre, and the small patterns they are chosen from. */
import type { Intent } from '../lenses/lens';
import { range } from '../lists';
import type { Beats } from '../time/units';
import { type Chance, weighed } from './chance';

/** What a line's time is divided by. */
export interface LineMetre {
  /** Beats to a bar. */
  readonly bar: Beats;
  /** Notes to a beat. */
  readonly per: number;
  /** Whether two notes may give way to three: eighths of a quarter do. */
  readonly triplets: boolean;
}

/** Some of a bar's time that is felt as one: a beat of eighths, a beat of triplets. */
interface Pulse {
  readonly beat: Beats;
  readonly slots: 1 | 2 | 3 | 4;
}

export interface Grid {
  readonly slot: Beats;
  readonly triplets: boolean;
  readonly pulses: readonly Pulse[];
}

const CLOSE = 1e-6;

/** How many notes are felt together: threes in compound metres and triplets, else twos or fours. */
function together({ bar, per }: LineMetre): 2 | 3 | 4 {
  if (per % 3 === 0 || per === 1.5) return 3;
  if (per === 1 && bar % 3 === 0 && bar > 3) return 3;
  if (per >= 4) return 4;
  return 2;
}

/** The grid of a metre between two beats. */
export function gridOf(metre: LineMetre, from: Beats, to: Beats): Grid {
  const slot = 1 / metre.per;
  const size = together(metre);
  const length = size * slot;
  const first = Math.floor((from + CLOSE) / metre.bar);
  const last = Math.ceil((to - CLOSE) / metre.bar);
  const pulses = range(first, last).flatMap((bar) => {
    const start = bar * metre.bar;
    return range(0, Math.ceil(metre.bar / length - CLOSE)).map((which): Pulse => {
      const beat = start + which * length;
      const left = Math.ceil((start + metre.bar - beat) / slot - CLOSE);
      return { beat, slots: Math.min(size, left) as Pulse['slots'] };
    });
  });
  const inside = ({ beat, slots }: Pulse) =>
    beat + slots * slot > from + CLOSE && beat < to - CLOSE;
  return { slot, triplets: metre.triplets, pulses: pulses.filter(inside) };
}

/** Which slots of a pulse begin a note, and how likely each pattern is. */
type Patterns = readonly (readonly [string, number])[];

/** By how many slots are felt together, and by how much of the change is said. */
const PATTERNS: Readonly<Record<1 | 2 | 3 | 4, Readonly<Record<Intent, Patterns>>>> = {
  1: {
    outline: [['x', 1]],
    lean: [
      ['x', 3],
      ['.', 1],
    ],
    coast: [
      ['x', 1],
      ['.', 1],
    ],
  },
  2: {
    outline: [
      ['xx', 7],
      ['x.', 1.5],
      ['.x', 1],
      ['ttt', 0.5],
    ],
    lean: [
      ['xx', 4],
      ['x.', 2.5],
      ['.x', 2],
      ['ttt', 0.3],
      ['..', 0.5],
    ],
    coast: [
      ['x.', 2],
      ['.x', 1.5],
      ['..', 6],
      ['xx', 0.4],
    ],
  },
  3: {
    outline: [
      ['xxx', 7],
      ['x.x', 2],
      ['.xx', 1],
      ['x..', 1],
    ],
    lean: [
      ['xxx', 3],
      ['x.x', 2.5],
      ['x..', 2],
      ['.xx', 1],
      ['..x', 1],
    ],
    coast: [
      ['x..', 2],
      ['..x', 1],
      ['...', 6],
      ['x.x', 1],
    ],
  },
  4: {
    outline: [
      ['xxxx', 6],
      ['x.xx', 2],
      ['xxx.', 1.5],
      ['.xxx', 1],
      ['x.x.', 1],
    ],
    lean: [
      ['xxxx', 2],
      ['x.xx', 2],
      ['x.x.', 2],
      ['xx.x', 1],
      ['.xx.', 1],
      ['x...', 1],
    ],
    coast: [
      ['x...', 2],
      ['..x.', 1.5],
      ['....', 6],
      ['x.x.', 1],
      ['..xx', 1],
    ],
  },
};

/** When notes begin in a grid, in a rhythm drawn by chance. */
export function patternOf(
  { slot, pulses, triplets }: Grid,
  density: Intent | ((beat: Beats) => Intent),
  chance: Chance,
): readonly Beats[] {
  return pulses.flatMap(({ beat, slots }) => {
    const intent = typeof density === 'string' ? density : density(beat);
    const pattern = weighed(PATTERNS[slots][intent], chance);
    if (pattern === 'ttt' && triplets)
      return range(0, 3).map((third) => beat + (third * slots * slot) / 3);
    return [...pattern].flatMap((sign, index) =>
      sign !== '.' && index < slots ? [beat + index * slot] : [],
    );
  });
}

/** The same with no triplet that lacks a note: what is left of one falls on the grid. */
export function wholeTriplets(beats: readonly Beats[], { per }: LineMetre): readonly Beats[] {
  const offGrid = (beat: Beats) => Math.abs(beat * per - Math.round(beat * per)) > CLOSE;
  if (!beats.some(offGrid)) return beats;
  const has = (beat: Beats) => beats.some((one) => Math.abs(one - beat) < CLOSE);
  const mended = beats.flatMap((beat): readonly Beats[] => {
    const start = Math.floor((beat + CLOSE) * (per / 2)) / (per / 2);
    const third = 2 / per / 3;
    if (!offGrid(beat) || range(0, 3).every((which) => has(start + which * third))) return [beat];
    const middle = start + 1 / per;
    return beat < middle && !has(middle) ? [middle] : [];
  });
  return [...new Set(mended)];
}

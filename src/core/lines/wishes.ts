/** What the plan of a line wants of its notes: sizes of moves, turns, chromatics, and how high they lie. */
import { at, group, range } from '../lists';
import { pitchAt, stringCount } from '../neck/neck';
import type { Midi } from '../notes/pitch';
import { regionFor } from './candidates';
import { byName, type Chance, drawn, weighed } from './chance';
import type { Onset } from './onsets';
import type { LinePlan } from './plan';
import type { LineRequest } from './request';
import { type LineMetre, passingOf } from './rhythm';
import { type Size, type StyleRow } from './styles';
import { BEAT } from '../time/units';

/** What is wanted of the way into a note, and of the note. */
interface Wish {
  readonly size: Size;
  readonly turn: boolean;
  /** Whether a leap is wished for just before, which wants its way back. */
  readonly back: boolean;
  readonly chromatic: boolean;
}

/** Sizes, turns and chromatic notes laid out over a line by chance. */
export function wishesFor(
  onsets: readonly Onset[],
  style: StyleRow,
  metre: LineMetre,
  chance: Chance,
): readonly Wish[] {
  const sizes = byName(style.sizes);
  const longest = passingOf(metre);
  const wishes: Wish[] = [];
  let held = false;
  for (const [which, onset] of onsets.entries()) {
    const before = wishes.at(-1);
    const size = weighed(sizes, chance);
    const turn = drawn(chance, style.turns);
    const next = onsets[which + 1];
    const leads = next?.target === true && !next.begins;
    const inPassing = drawn(chance, leads ? Math.min(0.6, 4 * style.chromatic) : style.chromatic);
    // It passes between the pulses; on one only into what is aimed at.
    const touches: boolean =
      !onset.target &&
      !onset.begins &&
      !onset.ends &&
      !onset.meets &&
      (!onset.strong || leads) &&
      onset.beats <= longest &&
      next !== undefined &&
      next.beat - onset.beat - onset.beats <= 0;
    const chromatic: boolean = touches && inPassing && !held;
    held = chromatic;
    // After a leap the line turns and steps back.
    const leapt = before?.size === 'wide' || before?.size === 'fourth';
    const wide = size === 'wide' || size === 'fourth';
    // What is aimed at is come to by a step.
    const into = onset.target && !onset.begins && (wide || size === 'third' || size === 'again');
    wishes.push({
      size: into ? 'half' : leapt && wide ? 'whole' : size,
      turn: leapt || turn,
      back: leapt,
      chromatic,
    });
  }
  return wishes;
}

/** Where a line strives for at an onset, and what it does not go over. */
export interface Height {
  readonly wanted: Midi;
  readonly most: Midi;
}

const SHAPES = ['arch', 'fall', 'rise', 'dip'] as const;
/** How far a phrase moves from its middle, in half steps. */
const SWING = { least: 3, more: 5 } as const;
/** How far below the top of the hand all but the climax stays. */
const UNDER = { least: 2, more: 3 } as const;

function bendOf(shape: (typeof SHAPES)[number], through: number): number {
  if (shape === 'arch') return 2 * Math.sin(Math.PI * through) - 1;
  if (shape === 'dip') return 1 - 2 * Math.sin(Math.PI * through);
  return shape === 'rise' ? 2 * through - 1 : 1 - 2 * through;
}

/** The height of a line at each onset: phrase by phrase, with one climax. */
export function heightsFor(
  request: LineRequest,
  plan: LinePlan,
  onsets: readonly Onset[],
  { low: lowCost }: StyleRow,
  chance: Chance,
): readonly Height[] {
  const { neck } = request;
  const shapes = plan.phrases.map(({ climax }) => {
    const drawnShape = at(SHAPES, Math.floor(chance() * SHAPES.length));
    const swing = SWING.least + SWING.more * chance();
    return { shape: climax ? 'arch' : drawnShape, swing } as const;
  });
  const under = UNDER.least + Math.floor(chance() * (UNDER.more + 1));
  const bounds = new Map(
    range(0, request.spans.length).map((span) => {
      const region = regionFor(request, span);
      // What bends lies on the upper strings.
      const lowest = lowCost > 2 ? Math.min(4, stringCount(neck)) : stringCount(neck);
      const low = pitchAt(neck, { string: lowest, fret: region.low });
      return [span, { low, high: pitchAt(neck, { string: 1, fret: region.high }) }] as const;
    }),
  );
  const byPhrase = group(onsets, ({ phrase }) => phrase);
  return onsets.map(({ phrase, beat, span }): Height => {
    const inside = byPhrase.get(phrase) ?? [];
    const start = at(inside, 0).beat;
    const length = Math.max(BEAT, at(inside, inside.length - 1).beat - start);
    const { level, climax } = at(plan.phrases, phrase);
    const { shape, swing } = at(shapes, phrase);
    const { low, high } = bounds.get(span) ?? { low: 0, high: 0 };
    const middle = low + (high - low) * (0.2 + 0.65 * level);
    const wanted = middle + swing * bendOf(shape, (beat - start) / length);
    const most = climax ? high : high - under - 1;
    return { wanted: Math.max(low, Math.min(wanted, most)), most };
  });
}

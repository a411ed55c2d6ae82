/** The notes of a line: the path that costs least through the targets. */
import { sameChord } from '../chords/chords';
import { at } from '../lists';
import { cheapestWalk } from '../paths/walk';
import { fallsBackward } from '../phrases/backward';
import { type PlayedNote, struck } from '../phrases/passage';
import { hashed, seeded } from '../random';
import { onBeat } from '../time/metre';
import type { Onset } from './onsets';
import type { LinePlan } from './plan';
import { LEAP } from './score';
import type { LineRequest } from './request';
import { type Candidate, layersOf } from './candidates';
import { heightsFor, wishesFor } from './wishes';

/** By half steps: steps are cheapest, the same note again the dearest of small moves. */
const MOVES = [34, 1, 0, 3, 4, 20, 24, 24] as const;
const FAR = { from: 26, each: 2 } as const;
const COSTS = {
  /** From chord tone to chord tone by a third or a fourth. */
  skip: -3,
  offChord: 5,
  string: 4,
  shift: 6,
  intoTarget: 24,
  leading: -3,
  chromatic: 2,
  jitter: 9,
  height: 0.9,
  /** Where the plan turns, where it does not, and right after another turn. */
  turn: -14,
  noTurn: 10,
  soon: 34,
  /** A leap where the plan has one, none where it has one. */
  leap: -24,
  noLeap: 9,
  /** A step of the motif missed, and its direction. */
  step: 9,
  direction: 16,
  again: 30,
  /** The third of a dominant falling to its minor third. */
  backward: 40,
  /** An ending of the other kind. */
  ending: 12,
} as const;
const ARPEGGIO_SKIP = 5;
const HAND = 4;

function moveCost(from: Candidate, to: Candidate, leapt: boolean): number {
  const size = Math.abs(to.midi - from.midi);
  const strings = Math.max(0, Math.abs(from.string - to.string) - 1) * COSTS.string;
  const shift = Math.max(0, Math.abs(from.fret - to.fret) - HAND) * COSTS.shift;
  const base = MOVES[size] ?? FAR.from + FAR.each * (size - MOVES.length);
  if (leapt) {
    // No wider than a seventh.
    return (size >= LEAP && size <= 10 ? base + COSTS.leap : base + COSTS.noLeap) + shift;
  }
  const skip = size >= 3 && size <= ARPEGGIO_SKIP && from.tone && to.tone ? COSTS.skip : 0;
  return base + skip + strings + shift;
}

/** The direction a line came in, and whether it has just turned. */
const STATES = 4;
const UP = 1;
const STEADY = 2;

export function notesFor(
  request: LineRequest,
  plan: LinePlan,
  onsets: readonly Onset[],
  seed: number,
): readonly PlayedNote[] {
  const { spans, metre } = request;
  const chance = seeded(hashed(seed, 7) * 4_294_967_296);
  const layers = layersOf(request, onsets);
  const wishes = wishesFor(onsets, metre, chance);
  const heights = heightsFor(request, onsets, chance);
  const stand = (which: number, { midi, tone, guide, root, chromatic }: Candidate): number => {
    const { target, beat, ends, phrase, begins } = at(onsets, which);
    if (target) return hashed(seed, which, midi) * COSTS.jitter;
    const { ending } = at(plan.phrases, phrase);
    const closes = guide || root;
    const final = which === onsets.length - 1;
    const last = final
      ? tone
        ? closes
          ? 0
          : COSTS.ending / 2
        : 10 * COSTS.ending
      : ends && closes === (ending === 'open')
        ? COSTS.ending
        : 0;
    return (
      (onBeat(beat) && !tone && !ends ? COSTS.offChord : 0) +
      (chromatic ? COSTS.chromatic : 0) +
      (begins && chromatic ? COSTS.offChord : 0) +
      Math.abs(midi - at(heights, which)) * COSTS.height +
      hashed(seed, which, midi) * COSTS.jitter +
      last
    );
  };
  const edges = (which: number) => {
    const onset = at(onsets, which);
    const wish = at(wishes, which);
    const into = onset.target && !at(onsets, which - 1).target && !onset.begins;
    const { chord } = at(spans, onset.span);
    const within = sameChord(at(spans, at(onsets, which - 1).span).chord, chord);
    return (from: Candidate, to: Candidate): number => {
      const size = Math.abs(to.midi - from.midi);
      const backward = within && fallsBackward(chord, from.midi, to.midi) ? COSTS.backward : 0;
      const arrival =
        backward + (into ? (size > 2 ? COSTS.intoTarget : size === 1 ? COSTS.leading : 0) : 0);
      if (onset.step === null) return moveCost(from, to, wish.leap) + arrival;
      const moved = to.rung - from.rung;
      const wrong = Math.sign(to.midi - from.midi) === Math.sign(onset.step) ? 0 : COSTS.direction;
      const off = Math.min(4, Math.abs(moved - onset.step)) * COSTS.step;
      const reach = Math.max(0, Math.abs(from.fret - to.fret) - HAND) * COSTS.shift;
      return (
        off +
        wrong +
        reach +
        (backward > 0 ? arrival : arrival / 2) +
        (size === 0 ? COSTS.again : 0)
      );
    };
  };
  const walk = cheapestWalk(
    layers.map((layer, which) => ({
      stands: layer.map((one) => stand(which, one)),
      ...(which === 0 ? {} : { into: stepsInto(at(layers, which - 1), layer, edges(which)) }),
    })),
    {
      states: STATES,
      begin: [STEADY, STEADY | UP],
      // A node is a place with the way it was come to.
      turn: (which, state, move) => {
        const up = move === 0 ? state & UP : move > 0 ? UP : 0;
        const turned = up !== (state & UP);
        const onset = at(onsets, which);
        const next = up | (turned ? 0 : STEADY);
        if (onset.step !== null) return { next, cost: 0 };
        const soon = turned && !(state & STEADY) ? COSTS.soon : 0;
        if (onset.begins) return { next: up | STEADY, cost: soon / 2 };
        const wished = at(wishes, which).turn;
        return { next, cost: soon + (turned ? (wished ? COSTS.turn : COSTS.noTurn) : 0) };
      },
    },
  );
  return walk.map((node, which) => {
    const { string, fret, note } = at(at(layers, which), node);
    const { beat, beats, span, target } = at(onsets, which);
    const leads = onsets[which + 1]?.target === true && !target;
    return struck({
      ...{ beat, beats, string, fret, note },
      chord: at(spans, span).index,
      part: target ? 'target' : leads ? 'approach' : 'fill',
    });
  });
}

/** The cost and the way of every move from one layer to the next, worked out once. */
function stepsInto(
  from: readonly Candidate[],
  to: readonly Candidate[],
  cost: (from: Candidate, to: Candidate) => number,
) {
  const costs = new Float64Array(from.length * to.length);
  const moves = new Int8Array(from.length * to.length);
  let place = 0;
  for (const here of from) {
    for (const there of to) {
      costs[place] = cost(here, there);
      moves[place] = Math.sign(there.midi - here.midi);
      place += 1;
    }
  }
  return { costs, moves };
}

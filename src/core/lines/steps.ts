/** The notes of a line: the path that costs least through what it aims at. */
import { sameChord } from '../chords/chords';
import { at } from '../lists';
import { pitchAt } from '../neck/neck';
import { cheapestWalk } from '../paths/walk';
import { fallsBackward } from '../phrases/backward';
import { type PlayedNote, struck } from '../phrases/passage';
import { hashed, seeded } from '../random';
import { DEFAULT_TEMPO } from '../time/tempo';
import { type Candidate, isForeign, layersOf } from './candidates';
import { fretsBetween, isHurried, isOutOfReach } from './inTime';
import type { Onset } from './onsets';
import type { LinePlan } from './plan';
import type { LineRequest } from './request';
import { pulseOf } from './rhythm';
import { sizeOf } from './portrait';
import { rungInto } from './spans';
import { rowOf, type Size } from './styles';
import { heightsFor, wishesFor } from './wishes';

/** What a move of each size costs where the line does not wish for it. */
const MOVES: Readonly<Record<Size, number>> = {
  again: 13,
  half: 2,
  whole: 2,
  third: 5,
  fourth: 12,
  wide: 24,
};
const COSTS = {
  /** A move of the size wished for; for each half step beyond a sixth. */
  wished: -12,
  beyond: 3,
  /** Hands: another string than the next, frets beyond the hand, and both in a hurry. */
  string: 3,
  shift: 9,
  skip: 36,
  stretch: 160,
  /** Into what is aimed at. */
  intoTarget: 16,
  leading: -4,
  chromatic: -9,
  /** A note in passing that does not touch what comes; a chromatic one on a pulse. */
  astray: 1_000,
  strongChromatic: 7,
  blueStrong: 1,
  /** The blue third risen to the third. */
  risen: -14,
  /** Rung into a chord it is foreign to. */
  foreign: 60,
  /** An avoid note held, on a pulse, and left by a leap. */
  held: 200,
  avoidStrong: 5,
  avoidLeap: 14,
  height: 0.8,
  over: 5,
  jitter: 7,
  /** The pitch of a target that this line does not aim at, where it meets the chord. */
  other: 30,
  turn: -8,
  noTurn: 5,
  soon: 9,
  /** On in the same direction after a leap. */
  onward: 26,
  step: 6,
  direction: 14,
  backward: 60,
  ending: 14,
  final: 160,
} as const;
/** How much freer the first note of a phrase is. */
const BEGINNING = 3;
const HAND = 4;

/** The direction a line came in, and whether it has just turned. */
const STATES = 4;
const UP = 1;
const STEADY = 2;

/** The notes of onsets: the cheapest way through what may be played at each. */
export function notesFor(
  request: LineRequest,
  plan: LinePlan,
  onsets: readonly Onset[],
  seed: number,
): readonly PlayedNote[] {
  const { spans, targets, neck, metre, tempo = DEFAULT_TEMPO } = request;
  const style = rowOf(request);
  const pulse = pulseOf(metre);
  const chance = seeded(hashed(seed, 7) * 4_294_967_296);
  const wishes = wishesFor(onsets, style, metre, chance);
  const heights = heightsFor(request, plan, onsets, style, chance);
  const layers = layersOf(request, onsets, (which) => at(wishes, which).chromatic);

  const rung = onsets.map(({ span, beat, beats }) => rungInto(spans, span, beat + beats));

  const stand = (which: number, one: Candidate): number => {
    const onset = at(onsets, which);
    const { midi, tone, guide, root, chromatic, blue, fifth, avoid, aside, string } = one;
    // A phrase may begin anywhere.
    const jitter = hashed(seed, which, midi) * COSTS.jitter * (onset.begins ? BEGINNING : 1);
    if (onset.target) return jitter;
    const { wanted, most } = at(heights, which);
    const { strong, ends, phrase, meets, span, beats } = onset;
    const long = beats > pulse / 2;
    const closes = guide || root;
    const { ending } = at(plan.phrases, phrase);
    const final = which === onsets.length - 1;
    const last = final
      ? tone
        ? closes
          ? 0
          : COSTS.ending
        : COSTS.final
      : ends && (!tone || closes === (ending === 'open'))
        ? COSTS.ending
        : 0;
    const colour = tone || blue ? 0 : style.colour[strong ? 0 : 1];
    const passing = chromatic
      ? COSTS.chromatic + (strong ? COSTS.strongChromatic : 0)
      : blue
        ? (style.blue ?? 0) + (strong ? COSTS.blueStrong : 0)
        : 0;
    // An avoid note passes; so does a blue fifth, and a blue third does not ring.
    const rings = ends || beats >= pulse;
    const clash = avoid
      ? rings
        ? COSTS.held
        : strong || long
          ? COSTS.avoidStrong
          : 0
      : blue && (fifth ? rings || long : ends || beats > pulse)
        ? COSTS.held
        : 0;
    const missed = meets && midi === pitchAt(neck, at(targets, span)) ? COSTS.other : 0;
    const over = at(rung, which).some((next) => isForeign(next, midi)) ? COSTS.foreign : 0;
    return (
      colour +
      passing +
      clash +
      over +
      missed +
      last +
      jitter +
      (aside ? style.five : 0) +
      Math.max(0, string - 3) * style.low +
      Math.abs(midi - wanted) * COSTS.height +
      Math.max(0, midi - most) * COSTS.over
    );
  };

  const edges = (which: number) => {
    const onset = at(onsets, which);
    const before = at(onsets, which - 1);
    const wish = at(wishes, which);
    const into = onset.target && !before.target && !onset.begins;
    const { chord } = at(spans, onset.span);
    const within = sameChord(at(spans, before.span).chord, chord);
    const beats = onset.beat - before.beat;
    const fast = isHurried(beats, tempo);
    const joined = !onset.begins;
    return (from: Candidate, to: Candidate): number => {
      const move = to.midi - from.midi;
      const size = Math.abs(move);
      const strings = Math.abs(from.string - to.string);
      const frets = fretsBetween(from, to);
      let cost =
        Math.max(0, strings - 1) * COSTS.string +
        Math.max(0, frets - HAND) * COSTS.shift +
        (fast && strings > 1 ? COSTS.skip * (strings - 1) : 0) +
        (isOutOfReach(from, to, beats) ? COSTS.stretch : 0);
      if (within && fallsBackward(chord, from.midi, to.midi)) cost += COSTS.backward;
      // A chromatic note and a blue fifth touch what comes; a blue third leans on it, most of all upward.
      if ((from.chromatic || from.fifth) && (size !== 1 || !joined)) cost += COSTS.astray;
      if (from.blue && joined && size > 3) cost += COSTS.avoidLeap;
      if (from.blue && to.guide && move === 1) cost += COSTS.risen;
      if (from.avoid && joined && size > 2) cost += COSTS.avoidLeap;
      if (into) cost += size > 2 || size === 0 ? COSTS.intoTarget : size === 1 ? COSTS.leading : 0;
      if (onset.step !== null) {
        const off = Math.min(4, Math.abs(to.rung - from.rung - onset.step)) * COSTS.step;
        return cost + off + (Math.sign(move) === Math.sign(onset.step) ? 0 : COSTS.direction);
      }
      const kind = sizeOf(size);
      cost += kind === wish.size && joined ? COSTS.wished : MOVES[kind];
      cost += Math.max(0, size - 9) * COSTS.beyond;
      return cost;
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
        if (onset.begins) return { next: up | STEADY, cost: 0 };
        const { turn: wished, back } = at(wishes, which);
        if (back) return { next, cost: turned ? COSTS.turn : COSTS.onward };
        const soon = turned && !(state & STEADY) ? COSTS.soon : 0;
        return { next, cost: soon + (turned ? (wished ? COSTS.turn : COSTS.noTurn) : 0) };
      },
    },
  );
  return walk.map((node, which) => {
    const { string, fret, note, midi } = at(at(layers, which), node);
    const { beat, beats, span, target } = at(onsets, which);
    // What is foreign still ends with its own chord.
    const change = at(rung, which).find((next) => isForeign(next, midi));
    const leads = onsets[which + 1]?.target === true && !target;
    return struck({
      beat,
      beats: change ? change.beat - beat : beats,
      string,
      fret,
      note,
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

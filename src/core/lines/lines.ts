/**
 * Lines that sound like somebody playing: phrases that breathe, made of a motif, whose notes are
 * the path that costs least through the targets of the chords — steps and arpeggio skips, a leap
 * now and then and a step back after it, a turn where the plan has one, a half step into a target.
 *
 * @example
 * lineOf({ neck, zone, spans, targets, metre: { bar: 4, per: 2, triplets: true }, seed: 1, … }).notes
 */
import { chordNotes } from '../chords/chords';
import { spellOver, weightOver, degreeOver } from '../chords/over';
import { at, group, range } from '../lists';
import type { Placed } from '../neck/fingering';
import { reachOf, underHand } from '../neck/hand';
import { inZone, type Neck, pitchAt, placesOf, stringCount, type Zone } from '../neck/neck';
import { type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { cheapestWalk } from '../paths/walk';
import { nearestPlace } from '../targets/approach';
import type { RouteStop } from '../targets/route';
import { type PlayedNote, struck } from '../phrases/passage';
import { hashed, seeded } from '../random';
import type { Chance } from './chance';
import { playedBy } from './hands';
import type { Motif } from './motif';
import { type Onset, onsetsOf } from './onsets';
import { type LinePlan, planLine, planWords } from './plan';
import { restsIn } from './rests';
import type { LineMetre } from './rhythm';
import { LEAP, type LineScore, scoreLine } from './score';
import type { ChordSpan } from './spans';

export interface LineRequest {
  readonly neck: Neck;
  /** The region to stay in; null follows the targets. */
  readonly zone: Zone | null;
  readonly spans: readonly ChordSpan[];
  /** A target for each span, in order. */
  readonly targets: readonly RouteStop[];
  readonly metre: LineMetre;
  /** Another seed, other notes over the same targets. */
  readonly seed: number;
  /** A seed for the plan alone, so that the idea stays while the notes change; the same by itself. */
  readonly idea?: number | null;
  /** A motif to work with; one of its own by itself. */
  readonly motif?: Motif | null;
  /** Two bars, and two empty ones for the player. */
  readonly calls?: boolean;
  /** Whether the target of a span was asked for, by hand or by its degree, and must be taken. */
  readonly asked?: (span: number) => boolean;
  /** Whether a hand bends and slides here, as in a blues. */
  readonly blues?: boolean;
}

export interface Line {
  readonly notes: readonly PlayedNote[];
  readonly plan: LinePlan;
  /** The plan in words, phrase by phrase. */
  readonly words: readonly string[];
  readonly score: LineScore;
}

interface Candidate extends Placed {
  readonly midi: Midi;
  readonly tone: boolean;
  readonly guide: boolean;
  readonly root: boolean;
  readonly chromatic: boolean;
  /** Where it stands among the notes played over its chord, low to high. */
  readonly rung: number;
}

/** Frets about the targets that a line without a zone may use. */
const ROAM = { below: 2, above: 3 } as const;

function regionFor({ zone, neck, targets }: LineRequest, span: number): Zone {
  if (zone) return zone;
  const frets = [at(targets, span).fret, (targets[span + 1] ?? at(targets, span)).fret];
  return {
    low: Math.max(neck.capo, Math.min(...frets) - ROAM.below),
    high: Math.min(neck.frets, Math.max(...frets) + ROAM.above),
  };
}

/** By half steps: steps are cheapest, the same note again the dearest of small moves. */
const MOVES = [34, 1, 0, 3, 4, 20, 24, 24] as const;
const FAR = { from: 26, each: 2 } as const;
const COSTS = {
  /** From chord tone to chord tone by a third or a fourth. */
  skip: -3,
  offChord: 5,
  string: 4,
  shift: 6,
  intoTarget: 14,
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
  /** An ending of the other kind. */
  ending: 12,
} as const;
const ARPEGGIO_SKIP = 5;
const HAND = 4;

const whole = (beat: number): boolean => Math.abs(beat - Math.round(beat)) < 1e-6;

/** Everything that may be played over one chord: what is chosen, under the hand. */
function ownOf(request: LineRequest, span: number): readonly Candidate[] {
  const { neck, spans } = request;
  const { chord, material } = at(spans, span);
  const inside = underHand(neck, material.notes, regionFor(request, span));
  const places = inside.length > 0 ? inside : placesOf(neck, material.notes);
  const tones = new Set(chordNotes(chord).map(pitchClass));
  return places.map((place, rung) => {
    const { string, fret, note } = place;
    const guide = weightOver(chord, degreeOver(chord, note)) === 'guide';
    const root = pitchClass(note) === pitchClass(chord.root);
    const midi = pitchAt(neck, place);
    const tone = tones.has(midi % 12);
    return { string, fret, note, midi, tone, guide, root, chromatic: false, rung };
  });
}

/** Where a pitch stands among rungs, between two of them where it is none itself. */
function rungOf(own: readonly Candidate[], midi: Midi): number {
  const above = own.findIndex((one) => one.midi >= midi);
  if (above < 0) return own.length;
  return at(own, above).midi === midi ? above : above - 0.5;
}

function layersOf(
  request: LineRequest,
  onsets: readonly Onset[],
): readonly (readonly Candidate[])[] {
  const { neck, spans, targets } = request;
  const owns = new Map<number, readonly Candidate[]>();
  const own = (span: number) => {
    const known = owns.get(span) ?? ownOf(request, span);
    owns.set(span, known);
    return known;
  };
  const extra = (span: number, place: Placed, chromatic: boolean): Candidate => {
    const { chord } = at(spans, span);
    const midi = pitchAt(neck, place);
    const weight = weightOver(chord, degreeOver(chord, place.note));
    return {
      ...{ string: place.string, fret: place.fret, note: place.note, midi, chromatic },
      tone: weight !== 'colour',
      guide: weight === 'guide',
      root: pitchClass(place.note) === pitchClass(chord.root),
      rung: rungOf(own(span), midi),
    };
  };
  return onsets.map(({ span, target }, which): readonly Candidate[] => {
    if (target) {
      const { string, fret, note } = at(targets, span);
      const stop = extra(span, { string, fret, note }, false);
      const free = !stop.guide && request.asked?.(span) !== true;
      // Where nobody asked for the target, what says the chord will do.
      const guides = free ? own(span).filter(({ guide }) => guide) : [];
      return guides.length > 0 ? guides : [stop];
    }
    const next = onsets[which + 1];
    // What leads must come at once: after a breath it would be a wrong note that rang.
    if (!next?.target || next.begins) return own(span);
    // Just before a target its neighbour a half step below is welcome too.
    const goal = at(targets, next.span);
    const below = nearestPlace(neck, goal, pitchAt(neck, goal) - 1, regionFor(request, span));
    const reach = reachOf(neck, regionFor(request, span));
    if (
      !below ||
      !inZone(reach, below.fret) ||
      own(span).some(({ midi }) => midi === pitchAt(neck, below))
    )
      return own(span);
    const note: Note = spellOver(at(spans, span).chord, pitchAt(neck, below));
    return [...own(span), extra(span, { ...below, note }, true)];
  });
}

/** What the plan wants of the way into a note: to turn before it, to leap into it. */
interface Wish {
  readonly turn: boolean;
  readonly leap: boolean;
}

/** How often a bar turns: several times or not at all, seldom once. */
const TURNS = [0, 0, 2, 2, 3, 2, 3, 2] as const;
/** Leaps wanted in eight bars; the way to a target adds others. */
const LEAPS = 2;

/** Turns and leaps laid out over a line, bar by bar, in what the motif leaves free. */
function wishesFor(onsets: readonly Onset[], { bar }: LineMetre, chance: Chance): readonly Wish[] {
  const wishes = onsets.map(() => ({ turn: false, leap: false }));
  const free = (index: number) => {
    const onset = onsets[index];
    return onset !== undefined && onset.step === null && !onset.begins;
  };
  const bars = Math.max(1, ...onsets.map(({ beat }) => Math.floor(beat / bar + 1e-6) + 1));
  for (const number of range(0, bars)) {
    const inBar = onsets.flatMap(({ beat }, index) =>
      Math.floor(beat / bar + 1e-6) === number && free(index) ? [index] : [],
    );
    let wanted: number = at(TURNS, Math.floor(chance() * TURNS.length));
    // Turns two notes apart at the least.
    let from = Math.floor(chance() * 2);
    while (wanted > 0 && from < inBar.length) {
      at(wishes, at(inBar, from)).turn = true;
      from += 2 + Math.floor(chance() * 2);
      wanted -= 1;
    }
  }
  const leaps = Math.max(1, Math.round((bars / 8) * LEAPS));
  const apart = onsets.length / leaps;
  for (const which of range(0, leaps)) {
    const near = Math.floor((which + 0.2 + 0.6 * chance()) * apart);
    const found = range(near, onsets.length).find(
      (index) =>
        free(index) && at(onsets, index).target === false && onsets[index + 1]?.target === false,
    );
    if (found === undefined) continue;
    at(wishes, found).leap = true;
    const after = wishes[found + 1];
    // After a leap the line turns and steps back.
    if (after && free(found + 1)) after.turn = true;
  }
  return wishes;
}

/** The height a line strives for at each onset: phrases rise and fall over the hand's range. */
function heightsFor(
  request: LineRequest,
  onsets: readonly Onset[],
  chance: Chance,
): readonly Midi[] {
  const { neck } = request;
  const phrases = Math.max(0, ...onsets.map(({ phrase }) => phrase)) + 1;
  const first = chance() < 0.5 ? 0 : 1;
  const arches = range(0, phrases).map((which) => ({
    up: chance() < 0.8 ? which % 2 === first : which % 2 !== first,
    reach: 0.3 + 0.5 * chance(),
  }));
  const bounds = onsets.map(({ span }) => {
    const region = regionFor(request, span);
    const low = pitchAt(neck, { string: stringCount(neck), fret: region.low });
    return { low, high: pitchAt(neck, { string: 1, fret: region.high }) };
  });
  const homes = onsets.map(({ span }) => pitchAt(neck, at(request.targets, span)));
  const byPhrase = group(onsets, ({ phrase }) => phrase);
  return onsets.map(({ phrase, beat }, index) => {
    const inside = byPhrase.get(phrase) ?? [];
    const start = at(inside, 0).beat;
    const length = Math.max(1, at(inside, inside.length - 1).beat - start);
    const { up, reach } = at(arches, phrase);
    const { low, high } = at(bounds, index);
    const home = at(homes, index);
    // Towards the side that has room: an octave and more lies between the phrases' ends.
    const way = (up && high - home > 7) || home - low <= 7 ? 1 : -1;
    const room = way > 0 ? high - home : home - low;
    const swing = Math.sin((Math.PI * (beat - start)) / length);
    return home + way * Math.min(room, 6 + 10 * reach) * swing;
  });
}

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

function notesFor(
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
      (whole(beat) && !tone && !ends ? COSTS.offChord : 0) +
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
    return (from: Candidate, to: Candidate): number => {
      const size = Math.abs(to.midi - from.midi);
      const arrival = into ? (size > 2 ? COSTS.intoTarget : size === 1 ? COSTS.leading : 0) : 0;
      if (onset.step === null) return moveCost(from, to, wish.leap) + arrival;
      const moved = to.rung - from.rung;
      const wrong = Math.sign(to.midi - from.midi) === Math.sign(onset.step) ? 0 : COSTS.direction;
      const off = Math.min(4, Math.abs(moved - onset.step)) * COSTS.step;
      const reach = Math.max(0, Math.abs(from.fret - to.fret) - HAND) * COSTS.shift;
      return off + wrong + reach + arrival / 2 + (size === 0 ? COSTS.again : 0);
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

/** Lines made for each asked for, of which the best is offered: more of a short form. */
const TRIES = { least: 5, most: 16, beats: 720 } as const;
/** A score that leaves nothing to wish for. */
const ENOUGH = 0.995;

function attempt(request: LineRequest, which: number): Line {
  const { spans, metre, seed, idea = null, motif = null, calls = false, neck } = request;
  const end = spans.reduce((last, { beat, beats }) => Math.max(last, beat + beats), 0);
  const planned = seeded(hashed(idea ?? seed, idea === null ? which : 0, 3) * 4_294_967_296);
  const plan = planLine({ metre, end, motif, calls }, planned);
  const chance = seeded(hashed(seed, which, 5) * 4_294_967_296);
  const onsets = restsIn(onsetsOf(plan, spans, metre, chance), end, metre, calls);
  const path = notesFor(request, plan, onsets, Math.floor(hashed(seed, which) * 65_536));
  const notes = playedBy(path, {
    ...{ neck, spans, seed },
    blues: request.blues ?? false,
    reach: request.zone && reachOf(neck, request.zone),
  });
  return {
    notes,
    plan,
    words: planWords(plan, heightsOf(request, plan, onsets, path)),
    score: scoreLine({ neck, spans, notes, onsets, metre, end }),
  };
}

/** How many steps each phrase lies above the first; null where it has no notes. */
function heightsOf(
  { neck }: LineRequest,
  { motif, phrases }: LinePlan,
  onsets: readonly Onset[],
  notes: readonly PlayedNote[],
): readonly (number | null)[] {
  const middle = phrases.map((_, which) => {
    const own = notes.filter((_note, index) => at(onsets, index).phrase === which);
    const head = own.slice(0, motif.onsets.length);
    const sum = head.reduce((whole, note) => whole + pitchAt(neck, note), 0);
    return head.length === 0 ? null : sum / head.length;
  });
  const first = middle[0] ?? null;
  return middle.map((pitch) =>
    pitch === null || first === null ? null : ((pitch - first) * 7) / 12,
  );
}

/** The line for a request: the best of several, the same for the same seed; null without chords. */
export function lineOf(request: LineRequest): Line | null {
  const { spans, targets } = request;
  if (spans.length === 0 || targets.length < spans.length) return null;
  const beats =
    spans.reduce((sum, span) => sum + span.beats, 0) * Math.max(1, request.metre.per / 2);
  const tries = Math.max(TRIES.least, Math.min(TRIES.most, Math.round(TRIES.beats / beats)));
  let best = attempt(request, 0);
  for (let which = 1; which < tries && best.score.total < ENOUGH; which++) {
    const line = attempt(request, which);
    if (line.score.total > best.score.total) best = line;
  }
  return best;
}

/**
 * Lines: the space between targets filled from the chosen collections, as the path that costs
 * least: mostly steps with arpeggio skips, chord tones on strong beats, each target reached by step.
 */
import { spellOver } from '../chords/over';
import { chordNotes } from '../chords/chords';
import { at, range } from '../lists';
import type { Placed } from '../neck/fingering';
import { underHand } from '../neck/hand';
import { type Neck, pitchAt, placesOf, stringCount, type Zone } from '../neck/neck';
import { type Note, pitchClass } from '../notes/notes';
import type { Midi } from '../notes/pitch';
import { bestPaths, type PathOptions } from '../paths/layered';
import { nearestPlace } from '../targets/approach';
import type { RouteStop } from '../targets/route';
import { type PlayedNote, struck } from '../phrases/passage';
import { hashed, seeded } from '../random';
import type { ChordSpan } from './spans';

export interface LineRequest {
  readonly neck: Neck;
  /** The region to stay in; null follows the targets. */
  readonly zone: Zone | null;
  readonly spans: readonly ChordSpan[];
  /** A target for each span, in order. */
  readonly targets: readonly RouteStop[];
  /** Notes to a beat. */
  readonly per: number;
  /** Another seed, another line over the same targets. */
  readonly seed: number;
}

/** A moment at which a note begins. */
interface Onset {
  readonly beat: number;
  readonly beats: number;
  readonly span: number;
  readonly target: boolean;
}

/** Chances, by intent, that the note after a target is left out, and that a target comes early. */
const CHANCES = {
  breath: { outline: 0.12, lean: 0.3, coast: 0.5 },
  early: { outline: 0.15, lean: 0.2, coast: 0.25 },
} as const;

/** Slots a coasting chord leads on with, into the next. */
const PICK_UP = 2;

/** Which slots of a chord begin a note: the first always does. */
function slotsOf(
  { intent, beats }: ChordSpan,
  per: number,
  chance: () => number,
): readonly boolean[] {
  const count = Math.max(1, Math.round(beats * per));
  const breath = chance() < CHANCES.breath[intent];
  const on = range(0, count).map(() => true);
  const silence = (from: number, to: number) => on.fill(false, from, Math.max(from, to));
  if (count > 2 * per) {
    // A longer chord has room to hold its target and breathe.
    if (intent === 'coast') silence(1, count - (chance() < 0.7 ? PICK_UP : 0));
    else if (intent === 'lean') silence(1, per + (breath ? per : 0));
    else if (breath) silence(1, 2);
  } else if (count > per) {
    if (intent === 'coast') silence(1, count);
    else if (intent === 'lean' && breath) silence(1, 2);
  }
  return on;
}

/** Where notes begin and how long they last: rests, pick-ups, and now and then an anticipation. */
function onsetsOf({ spans, per, seed }: LineRequest): readonly Onset[] {
  const chance = seeded(seed);
  const slot = 1 / per;
  const starts: { beat: number; span: number; target: boolean }[] = [];
  for (const [index, span] of spans.entries()) {
    const slots = slotsOf(span, per, chance);
    const before = starts.at(-1);
    const room =
      index > 0 && at(spans, index - 1).beats >= 2 && before !== undefined && !before.target;
    const early = per > 1 && room && chance() < CHANCES.early[span.intent];
    if (early) starts.pop();
    for (const [which, on] of slots.entries()) {
      if (!on) continue;
      const beat = span.beat + which * slot - (early && which === 0 ? slot : 0);
      starts.push({ beat, span: index, target: which === 0 });
    }
  }
  const end = spans.reduce((last, { beat, beats }) => Math.max(last, beat + beats), 0);
  return starts.map((start, index) => {
    const next = starts[index + 1]?.beat ?? end;
    const gap = next - start.beat;
    const held = start.target ? Math.max(1, slot) : slot;
    // A target rings until the next note where that comes soon, else for its beat.
    return { ...start, beats: Math.min(gap, gap <= held + slot ? gap : held) };
  });
}

interface Candidate extends Placed {
  readonly midi: Midi;
  readonly tone: boolean;
  readonly chromatic: boolean;
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

/** By half steps: steps are cheapest, repeating the dearest of small moves. */
const MOVES = [14, 1, 0, 3, 4, 8, 11, 11] as const;
const LEAP = { from: 13, each: 2 } as const;
const COSTS = {
  skip: -3,
  offChord: 6,
  string: 4,
  shift: 6,
  intoTarget: 9,
  leading: -3,
  chromatic: 2,
  jitter: 3,
  contour: 0.5,
  turn: 4,
} as const;
const ARPEGGIO_SKIP = 5;
const HAND = 4;

function moveCost(from: Candidate, to: Candidate): number {
  const size = Math.abs(to.midi - from.midi);
  const base = MOVES[size] ?? LEAP.from + LEAP.each * (size - MOVES.length);
  const skip = size >= 3 && size <= ARPEGGIO_SKIP && from.tone && to.tone ? COSTS.skip : 0;
  const strings = Math.max(0, Math.abs(from.string - to.string) - 1) * COSTS.string;
  const shift = Math.max(0, Math.abs(from.fret - to.fret) - HAND) * COSTS.shift;
  return base + skip + strings + shift;
}

const PEAKS = { least: 4, most: 9 } as const;

/** The lowest and highest pitch of a span's region. */
function boundsOf(request: LineRequest, span: number): { readonly low: Midi; readonly high: Midi } {
  const { neck } = request;
  const region = regionFor(request, span);
  return {
    low: pitchAt(neck, { string: stringCount(neck), fret: region.low }),
    high: pitchAt(neck, { string: 1, fret: region.high }),
  };
}

/** A height the line strives for at each onset, so that it turns here and there. */
function contourOf(request: LineRequest, onsets: readonly Onset[]): (onset: number) => Midi {
  const { targets, spans, neck, seed } = request;
  const heights = targets.map((target) => pitchAt(neck, target));
  return (onset) => {
    const { span, beat } = at(onsets, onset);
    const { beats, beat: start } = at(spans, span);
    const from = at(heights, span);
    const to = heights[span + 1] ?? from;
    const share = Math.max(0, Math.min(1, (beat - start) / beats));
    const draw = hashed(seed, span);
    const reach = PEAKS.least + Math.round(draw * (PEAKS.most - PEAKS.least));
    const way = draw < 0.5 ? -1 : 1;
    // Where the zone ends on that side the line turns the other way.
    const bounds = boundsOf(request, span);
    const summit = (from + to) / 2 + way * reach;
    const blocked = summit > bounds.high || summit < bounds.low;
    const peak = (blocked ? -way : way) * reach;
    return from + (to - from) * share + peak * Math.sin(Math.PI * share);
  };
}

function candidatesAt(
  request: LineRequest,
  onsets: readonly Onset[],
  which: number,
): readonly Candidate[] {
  const { neck, spans, targets } = request;
  const { span, target } = at(onsets, which);
  const { chord, material } = at(spans, span);
  const tones = new Set(chordNotes(chord).map(pitchClass));
  const candidate = (place: Placed, chromatic: boolean): Candidate => {
    const midi = pitchAt(neck, place);
    return { ...place, midi, tone: tones.has(midi % 12), chromatic };
  };
  if (target) {
    const { string, fret, note } = at(targets, span);
    return [candidate({ string, fret, note }, false)];
  }
  const region = regionFor(request, span);
  const inside = underHand(neck, material.notes, region);
  const own = (inside.length > 0 ? inside : placesOf(neck, material.notes)).map((place) =>
    candidate(place, false),
  );
  const next = onsets[which + 1];
  if (!next?.target) return own;
  // Just before a target its neighbour a half step below is welcome too.
  const goal = at(targets, next.span);
  const below = nearestPlace(neck, goal, pitchAt(neck, goal) - 1);
  if (!below || own.some(({ midi }) => midi === pitchAt(neck, below))) return own;
  const note: Note = spellOver(chord, pitchAt(neck, below));
  return [...own, candidate({ ...below, note }, true)];
}

const whole = (beat: number): boolean => Math.abs(beat - Math.round(beat)) < 1e-6;

/** The line for a request: the same for the same seed. Empty where there are no chords. */
export function fillLine(request: LineRequest, options: PathOptions = {}): readonly PlayedNote[] {
  const { spans, targets, seed } = request;
  if (spans.length === 0 || targets.length < spans.length) return [];
  const onsets = onsetsOf(request);
  const layers = onsets.map((_, which) => candidatesAt(request, onsets, which));
  const height = contourOf(request, onsets);
  const stand = (which: number, { midi, tone, chromatic }: Candidate): number => {
    const { target, beat } = at(onsets, which);
    if (target) return 0;
    return (
      (whole(beat) && !tone ? COSTS.offChord : 0) +
      (chromatic ? COSTS.chromatic : 0) +
      Math.round(Math.abs(midi - height(which)) * COSTS.contour) +
      Math.floor(hashed(seed, which, midi) * COSTS.jitter)
    );
  };
  const stands = layers.map((layer, which) => layer.map((place) => stand(which, place)));
  // Each place twice, reached from below and from above, so that a turn can have its price.
  const [best] = bestPaths(
    {
      sizes: layers.map((layer) => 2 * layer.length),
      node: (which, node) => at(at(stands, which), node >> 1),
      edge: (which, from, to) => {
        const here = at(at(layers, which), from >> 1);
        const there = at(at(layers, which + 1), to >> 1);
        const size = there.midi - here.midi;
        const upward = (to & 1) === 1;
        const turns = (from & 1) !== (to & 1);
        if (size === 0 ? turns : upward !== size > 0) return Infinity;
        const begins = at(onsets, which).target;
        const into = at(onsets, which + 1).target && !begins;
        const reach = Math.abs(size);
        const arrival = into ? (reach > 2 ? COSTS.intoTarget : reach === 1 ? COSTS.leading : 0) : 0;
        return moveCost(here, there) + arrival + (turns && !begins ? COSTS.turn : 0);
      },
      loop: false,
    },
    1,
    options,
  );
  return (best?.nodes ?? []).map((node, which) => {
    const { string, fret, note } = at(at(layers, which), node >> 1);
    const { beat, beats, span, target } = at(onsets, which);
    const leads = onsets[which + 1]?.target === true && !target;
    return struck({
      ...{ beat, beats, string, fret, note },
      chord: at(spans, span).index,
      part: target ? 'target' : leads ? 'approach' : 'fill',
    });
  });
}

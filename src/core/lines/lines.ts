/**
 * Lines that sound like somebody playing: phrases that breathe, made of a motif, whose notes are
 * the path that costs least through the targets of the chords — steps and arpeggio skips, a leap
 * now and then and a step back after it, a turn where the plan has one, a half step into a target.
 *
 * @example
 * lineOf({ neck, zone, spans, targets, metre: { bar: 4, per: 2, triplets: true }, seed: 1, … }).notes
 */
import { at } from '../lists';
import { reachOf } from '../neck/hand';
import { pitchAt } from '../neck/neck';
import type { PlayedNote } from '../phrases/passage';
import { hashed, seeded } from '../random';
import { playedBy } from './hands';
import { type Onset, onsetsOf } from './onsets';
import { type LinePlan, planLine, planWords } from './plan';
import { restsIn } from './rests';
import { type LineScore, scoreLine } from './score';
import type { LineRequest } from './request';
import { notesFor } from './steps';

export interface Line {
  readonly notes: readonly PlayedNote[];
  readonly plan: LinePlan;
  /** The plan in words, phrase by phrase. */
  readonly words: readonly string[];
  readonly score: LineScore;
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

/**
 * Lines that sound like somebody playing, built from the top down: phrases over the whole form, a motif in
 * them, a rhythm that goes through the bar lines, and the notes that cost least through what is aimed at.
 * Styles are rows of one table.
 *
 * @example
 * lineOf({ neck, zone, spans, targets, metre: lineMetre(time, 'eighths'), style: 'bop', seed: 1 })
 */
import type { Intent } from '../lenses/lens';
import { at } from '../lists';
import { reachOf } from '../neck/hand';
import { pitchAt } from '../neck/neck';
import type { PlayedNote } from '../phrases/passage';
import { hashed, seeded } from '../random';
import { DEFAULT_TEMPO } from '../time/tempo';
import { playedBy } from './hands';
import { type Onset, onsetsOf, stretchesOf } from './onsets';
import { type LinePlan, planLine, planWords } from './plan';
import { type LineScore, scoreLine } from './score';
import type { LineRequest } from './request';
import { notesFor } from './steps';
import { rowOf, STYLE_ROWS } from './styles';
import { BEAT, inBeats } from '../time/units';

/** A line with its plan, in words too. */
export interface Line {
  readonly notes: readonly PlayedNote[];
  readonly plan: LinePlan;
  /** The plan in words, phrase by phrase. */
  readonly words: readonly string[];
  readonly score: LineScore;
}

/** Lines made for each asked for, of which the best is offered: more of a short form. */
const TRIES = { least: 3, most: 8, beats: 384 } as const;
/** A score that leaves nothing to wish for. */
const ENOUGH = 0.98;
/** A step that seeds do not repeat soon: of those in a row each chord is aimed at by its share. */
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Whether a line of a seed aims at the target of a chord: as often as its style does, each chord by turns. */
function aimsAt(
  { seed, spans, style, pinned, everyChange = false }: LineRequest,
  span: number,
): boolean {
  const { index, intent } = at(spans, span);
  if (everyChange || pinned?.has(index)) return true;
  const share = STYLE_ROWS[style].aims * SHARE_OF[intent];
  return (hashed(index, 11) + seed * GOLDEN) % 1 < share;
}
const SHARE_OF: Readonly<Record<Intent, number>> = { outline: 1, lean: 1, coast: 0.6 };

function attempt(request: LineRequest, which: number): Line {
  const { spans, metre, seed, idea = null, motif = null, calls = false, neck, style } = request;
  const { everyChange = false } = request;
  const row = rowOf(request);
  const end = spans.reduce((last, { beat, beats }) => Math.max(last, beat + beats), 0);
  const planned = seeded(hashed(idea ?? seed, idea === null ? which : 0, 3) * 4_294_967_296);
  const changes = stretchesOf(spans).map(({ beat }) => beat);
  const plan = planLine({ metre, style: row, end, changes, motif, calls, everyChange }, planned);
  const chance = seeded(hashed(seed, which, 5) * 4_294_967_296);
  const aims = (span: number) => aimsAt(request, span);
  const onsets = onsetsOf({ plan, spans, metre, style: row, aims }, chance);
  const path = notesFor(request, plan, onsets, Math.floor(hashed(seed, which) * 65_536));
  const notes = playedBy(path, {
    neck,
    spans,
    seed,
    metre,
    hands: row.hands,
    reach: request.zone && reachOf(neck, request.zone),
  });
  const { tempo = DEFAULT_TEMPO } = request;
  return {
    notes,
    plan,
    words: planWords(plan, heightsOf(request, plan, onsets, path)),
    score: scoreLine({
      neck,
      spans,
      notes,
      onsets,
      metre,
      end,
      style,
      tempo,
      home: request.home ?? null,
    }),
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
    inBeats(spans.reduce((sum, span) => sum + span.beats, 0)) *
    Math.max(1, BEAT / (2 * request.metre.slot));
  const tries = Math.max(TRIES.least, Math.min(TRIES.most, Math.round(TRIES.beats / beats)));
  let best = attempt(request, 0);
  for (let which = 1; which < tries && best.score.total < ENOUGH; which++) {
    const line = attempt(request, which);
    if (line.score.total > best.score.total) best = line;
  }
  return best;
}

/** When the notes of a line begin and end, and which of them land on a chord. */
import { sameChord } from '../chords/chords';
import type { Intent } from '../lenses/lens';
import { at, range } from '../lists';
import type { Beats } from '../time/units';
import { type Chance, weighed } from './chance';
import { fragmentOf, invertMotif, type Motif } from './motif';
import type { LinePlan, PhraseRole, PlannedPhrase } from './plan';
import { gridOf, type LineMetre, patternOf, wholeTriplets } from './rhythm';
import type { ChordSpan } from './spans';

/** A moment at which a note begins. */
export interface Onset {
  readonly beat: Beats;
  readonly beats: Beats;
  /** How long it may last: up to the next one, and not into silence. */
  readonly room: Beats;
  /** The chord it is heard over: the one that comes, where it is anticipated. */
  readonly span: number;
  /** Whether it lands on its chord. */
  readonly target: boolean;
  readonly phrase: number;
  /** Steps from the note before, where the motif says; null where the line is free. */
  readonly step: number | null;
  /** First and last of their phrase. */
  readonly begins: boolean;
  readonly ends: boolean;
}

/** Chords in a row that are the same, played over alike: one stretch, landed on once. */
export interface Stretch {
  readonly first: number;
  readonly beat: Beats;
  readonly end: Beats;
}

export function stretchesOf(spans: readonly ChordSpan[]): readonly Stretch[] {
  const stretches: Stretch[] = [];
  for (const [index, span] of spans.entries()) {
    const before = spans[index - 1];
    const last = stretches.at(-1);
    const end = span.beat + span.beats;
    const on =
      before && sameChord(before.chord, span.chord) && before.material.name === span.material.name;
    if (last && on && Math.abs(last.end - span.beat) < CLOSE) {
      stretches[stretches.length - 1] = { ...last, end };
    } else stretches.push({ first: index, beat: span.beat, end });
  }
  return stretches;
}

/** How a line meets a change: on its beat, before it, after it, or led in by an eighth. */
type Arrival = 'on' | 'early' | 'late' | 'led';

/**
 * An arrival on the beat, or ahead of it and held across, is heard as belonging to the change; one
 * led in by the eighth before it keeps the line running.
 */
const ARRIVALS: Readonly<Record<Intent, readonly (readonly [Arrival, number])[]>> = {
  outline: [
    ['on', 4],
    ['early', 3.2],
    ['late', 1],
    ['led', 1.8],
  ],
  lean: [
    ['on', 4],
    ['early', 3],
    ['late', 1.4],
    ['led', 1],
  ],
  coast: [
    ['on', 4],
    ['early', 3],
    ['late', 2],
    ['led', 0],
  ],
};

const CLOSE = 1e-6;

/** A note that begins this long before a chord is heard as its own, as is one in its first beat. */
export const AHEAD: Beats = 0.5;
const FIRST_BEAT: Beats = 1;

/** How far from a change its landing may lie, and the grid's notes on either side of it. */
interface Reach {
  readonly ahead: Beats;
  readonly after: Beats;
  readonly aside: Beats;
}

/** Where a beat is but an eighth, as in 12/8, the eighths about it belong to it too. */
function reachOf({ per, bar }: LineMetre): Reach {
  const aside = Math.floor(AHEAD * per + CLOSE) / per;
  if (aside > 0 || bar < 6) return { ahead: AHEAD, after: FIRST_BEAT, aside };
  return { ahead: 1 / per, after: 1 / per + FIRST_BEAT / 2, aside: 1 / per };
}

const played: Readonly<Record<PhraseRole, (motif: Motif) => Motif | null>> = {
  statement: (motif) => motif,
  repeat: (motif) => motif,
  sequence: (motif) => motif,
  answer: (motif) => motif,
  inversion: invertMotif,
  fragment: fragmentOf,
  free: () => null,
};

interface Draft {
  readonly beat: Beats;
  readonly step: number | null;
  /** Notes of a motif keep their place. */
  readonly fixed: boolean;
}

/** Bars after which a long phrase takes its motif up again. */
const AGAIN = 2;

function draftOf(
  phrase: PlannedPhrase,
  plan: LinePlan,
  metre: LineMetre,
  intentAt: (beat: Beats) => Intent,
  chance: Chance,
): readonly Draft[] {
  const coasts = range(0, Math.ceil(phrase.to - phrase.from)).filter(
    (beat) => intentAt(phrase.from + beat) === 'coast',
  );
  // Where little is to be said the idea is hinted at.
  const sparse = coasts.length * 2 > phrase.to - phrase.from;
  const motif = played[phrase.role](sparse ? fragmentOf(plan.motif) : plan.motif);
  const drafts: Draft[] = [];
  let free = phrase.from;
  const state = (idea: Motif, from: Beats) => {
    for (const [index, onset] of idea.onsets.entries()) {
      const beat = from + onset;
      if (beat >= phrase.to - CLOSE) break;
      drafts.push({ beat, step: index === 0 ? null : at(idea.steps, index - 1), fixed: true });
      free = beat + (index === idea.onsets.length - 1 ? Math.max(idea.last, 1 / metre.per) : 0);
    }
  };
  const fill = (to: Beats) => {
    const pattern = patternOf(gridOf(metre, free, to), intentAt, chance);
    for (const beat of pattern) {
      if (beat < free - CLOSE || beat >= to - CLOSE) continue;
      drafts.push({ beat, step: null, fixed: false });
    }
    free = Math.max(free, to);
  };
  if (motif) {
    if (phrase.entry > phrase.from) fill(phrase.entry);
    state(motif, phrase.entry);
    const again = phrase.entry + AGAIN * metre.bar;
    if (phrase.bars.last - phrase.bars.first >= AGAIN && again < phrase.to - metre.bar / 2) {
      fill(again);
      state(motif, again);
    }
  }
  fill(phrase.to);
  return drafts.toSorted((a, b) => a.beat - b.beat);
}

/** A share of a bar that the last note of a phrase rings for, and of the whole line. */
const RINGS = { phrase: 1 / 4, line: 1 / 2 } as const;

interface Meeting {
  readonly onset: number;
  readonly span: number;
}

/** Everything that begins in a line, chord by chord and phrase by phrase. */
export function onsetsOf(
  plan: LinePlan,
  spans: readonly ChordSpan[],
  metre: LineMetre,
  chance: Chance,
): readonly Onset[] {
  const stretches = stretchesOf(spans);
  const reach = reachOf(metre);
  const spanAt = (beat: Beats): number =>
    spans.findLastIndex(
      (span) => span.beat <= beat + CLOSE && beat < span.beat + span.beats - CLOSE,
    );
  const intentAt = (beat: Beats): Intent => spans[spanAt(beat)]?.intent ?? 'coast';
  const all: (Draft & { phrase: number; ends: Beats })[] = [];
  for (const [which, phrase] of plan.phrases.entries()) {
    let drafts: readonly Draft[] = draftOf(phrase, plan, metre, intentAt, chance);
    const final = which === plan.phrases.length - 1;
    const ring = metre.bar * (final ? RINGS.line : RINGS.phrase);
    const close = final ? closingOf(phrase, stretches, ring) : phrase.to - ring;
    for (const { beat: change, first } of stretches) {
      if (change < phrase.from - reach.ahead - CLOSE || change > phrase.to - CLOSE) continue;
      const arrival = weighed(ARRIVALS[at(spans, first).intent], chance);
      drafts = metAt(change, drafts, phrase, arrival, reach);
    }
    // The last note rings: nothing begins after it.
    const border = (phrase.bars.last + 1) * metre.bar;
    const stop = phrase.over ? border + CLOSE : close;
    const kept = drafts.filter(({ beat }, index) => beat <= stop + CLOSE || index === 0);
    if (final && !kept.some(({ beat }) => Math.abs(beat - close) < CLOSE)) {
      // What is too near to the last note gives way to it.
      while (kept.length > 0 && at(kept, kept.length - 1).beat > close - AHEAD + CLOSE) kept.pop();
      kept.push({ beat: close, step: null, fixed: false });
    }
    const there = wholeTriplets(
      kept.map(({ beat }) => beat),
      metre,
    );
    for (const beat of there) {
      const known = kept.find((one) => Math.abs(one.beat - beat) < CLOSE);
      const draft = known ?? { beat, step: null, fixed: false };
      if (spanAt(draft.beat) < 0) continue;
      const last = all.at(-1);
      if (last && draft.beat < last.beat + CLOSE) continue;
      all.push({ ...draft, phrase: which, ends: phrase.to });
    }
  }
  const meetings = meetingsOf(all, stretches, reach);
  const landing = new Map(meetings.map(({ onset, span }) => [onset, span]));
  return all.map(({ beat, step, phrase, ends }, index): Onset => {
    const next = all[index + 1];
    const span = landing.get(index) ?? spanAt(beat);
    const lastOfPhrase = next?.phrase !== phrase;
    const until = lastOfPhrase ? ends : next.beat;
    const sounding = at(spans, span);
    const silence =
      spans[span + 1] &&
      Math.abs(at(spans, span + 1).beat - sounding.beat - sounding.beats) < CLOSE;
    // No note reaches into a bar without a chord.
    const wall = silence ? Infinity : sounding.beat + sounding.beats;
    const room = Math.min((next?.beat ?? Infinity) - beat, wall - beat);
    const held = lastOfPhrase || landing.has(index) ? metre.bar / 2 : Math.max(1, 1 / metre.per);
    const longest = next === undefined ? metre.bar : held;
    const shortest = 1 / (8 * metre.per);
    return {
      beat,
      beats: Math.max(shortest, Math.min(until - beat, longest, room)),
      room,
      span,
      target: landing.has(index),
      phrase,
      step: index > 0 && at(all, index - 1).phrase === phrase ? step : null,
      begins: index === 0 || at(all, index - 1).phrase !== phrase,
      ends: lastOfPhrase,
    };
  });
}

/** Where the last note begins: on the last change that leaves it room, else in the last bar. */
function closingOf({ from, to }: PlannedPhrase, stretches: readonly Stretch[], ring: Beats): Beats {
  const change = stretches.findLast(({ beat }) => beat >= from - CLOSE && beat <= to - 1 + CLOSE);
  const latest = Math.max(from, to - ring);
  if (!change || change.beat < latest - ring - CLOSE) return latest;
  return change.beat;
}

/** The rhythm about a change made to meet it; what belongs to the motif stays. */
function metAt(
  change: Beats,
  drafts: readonly Draft[],
  phrase: PlannedPhrase,
  arrival: Arrival,
  { ahead: before, after, aside }: Reach,
): readonly Draft[] {
  const inside = ({ beat }: Draft) =>
    beat >= change - before - CLOSE && beat < change + after - CLOSE;
  const about = drafts.filter(inside);
  const idea = about.some(({ fixed }) => fixed);
  if (idea) return drafts;
  const ahead = aside > 0 && change - aside >= Math.max(0, phrase.from) - CLOSE;
  const plain = aside === 0 || ((arrival === 'early' || arrival === 'led') && !ahead);
  const way = plain ? 'on' : arrival;
  if (way === 'late' && change + aside >= phrase.to - CLOSE) return drafts;
  const beat = way === 'early' ? change - aside : way === 'late' ? change + aside : change;
  if (beat < phrase.from - CLOSE || beat < -CLOSE) return drafts;
  const gives = (draft: Draft) => {
    if (Math.abs(draft.beat - beat) < CLOSE) return true;
    const leads = draft.beat > change - before - CLOSE && draft.beat < change - CLOSE;
    if (way === 'led') return false;
    if (way === 'on') return leads;
    return leads || Math.abs(draft.beat - change) < CLOSE;
  };
  const others = drafts.filter((draft) => !gives(draft));
  return [...others, { beat, step: null, fixed: false }].toSorted((a, b) => a.beat - b.beat);
}

/** Which onset lands on each stretch: the first heard as its own, or the beat after one that leads. */
function meetingsOf(
  all: readonly Draft[],
  stretches: readonly Stretch[],
  { ahead, after }: Reach,
): readonly Meeting[] {
  const taken = new Set<number>();
  return stretches.flatMap(({ beat: change, first }): readonly Meeting[] => {
    const own = all.flatMap(({ beat }, index) =>
      beat >= change - ahead - CLOSE && beat < change + after - CLOSE && !taken.has(index)
        ? [index]
        : [],
    );
    const [head] = own;
    if (head === undefined) return [];
    const on = own.find((index) => Math.abs(at(all, index).beat - change) < CLOSE);
    // A note on the beat is the landing; what runs into it leads.
    const onset = on ?? head;
    taken.add(onset);
    return [{ onset, span: first }];
  });
}

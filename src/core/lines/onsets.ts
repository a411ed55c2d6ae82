/** When the notes of a line begin and end, and which of them land on a chord. */
import { sameChord } from '../chords/chords';
import type { Intent } from '../lenses/lens';
import { at } from '../lists';
import { BEAT, type Beats } from '../time/units';
import { RUNNING } from './cells';
import { byName, type Chance, drawn, weighed } from './chance';
import { fragmentOf, invertMotif, type Motif } from './motif';
import type { LinePlan, PhraseRole, PlannedPhrase } from './plan';
import { type Bounds, isStrong, type LineMetre, pulseOf, rhythmIn } from './rhythm';
import type { ChordSpan } from './spans';
import type { Arrival, StyleRow } from './styles';

/** A moment at which a note begins. */
export interface Onset {
  readonly beat: Beats;
  readonly beats: Beats;
  /** The chord it is heard over: the one that comes, where it is anticipated. */
  readonly span: number;
  /** Whether it lands on its chord, where that is aimed at. */
  readonly target: boolean;
  /** Whether it is the first note of its chord that is heard with it. */
  readonly meets: boolean;
  readonly phrase: number;
  /** Steps from the note before, where the motif says; null where the line is free. */
  readonly step: number | null;
  /** First and last of their phrase. */
  readonly begins: boolean;
  readonly ends: boolean;
  /** On the beginning of a pulse. */
  readonly strong: boolean;
}

/** Chords in a row that are the same, played over alike: one stretch, landed on once. */
export interface Stretch {
  readonly first: number;
  readonly beat: Beats;
  readonly end: Beats;
}

/** Spans of one chord and one material that follow each other without a gap, as one stretch. */
export function stretchesOf(spans: readonly ChordSpan[]): readonly Stretch[] {
  const stretches: Stretch[] = [];
  for (const [index, span] of spans.entries()) {
    const before = spans[index - 1];
    const last = stretches.at(-1);
    const end = span.beat + span.beats;
    const on =
      before && sameChord(before.chord, span.chord) && before.material.name === span.material.name;
    if (last && on && last.end === span.beat) {
      stretches[stretches.length - 1] = { ...last, end };
    } else stretches.push({ first: index, beat: span.beat, end });
  }
  return stretches;
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

/** How much of a chord's rhythm is left where little is to be said of it. */
const SAID: Readonly<Record<Intent, number>> = { outline: 1, lean: 0.9, coast: 0.2 };
/** Of its notes, those that stay there. */
const COASTS = 0.3;

/** A change that a phrase meets, and how. */
interface Met {
  readonly span: number;
  readonly way: Arrival;
  /** When its note begins. */
  readonly beat: Beats;
}

interface Draft {
  readonly beat: Beats;
  readonly step: number | null;
}

/** What each way of meeting a change at a beat needs: moments struck, and silent. */
function needs(way: Arrival, change: Beats, slot: Beats): Bounds {
  if (way === 'early') return { struck: [change - slot], silent: [change] };
  if (way === 'late') return { struck: [change, change + slot], silent: [] };
  return { struck: [change], silent: [] };
}

interface OnsetRequest {
  readonly plan: LinePlan;
  readonly spans: readonly ChordSpan[];
  readonly metre: LineMetre;
  readonly style: StyleRow;
  /** Whether the target of a chord is aimed at, where the line meets it. */
  readonly aims: (span: number) => boolean;
}

/** How long after a change a phrase that begins there still meets it. */
const MEETS: Beats = BEAT;

/** The changes a phrase runs through or begins with, each met in a way its motif leaves room for. */
function metIn(
  phrase: PlannedPhrase,
  idea: readonly Beats[],
  stretches: readonly Stretch[],
  { metre, style, spans, aims }: OnsetRequest,
  chance: Chance,
): readonly Met[] {
  const { slot } = metre;
  const { from, close } = phrase;
  const last = idea.at(-1) ?? -Infinity;
  const inIdea = (beat: Beats) => beat >= from && beat <= last;
  const struckIn = (beat: Beats) => idea.includes(beat);
  const ways = byName(style.arrivals);
  return stretches.flatMap(({ beat: change, first }): readonly Met[] => {
    const draw = chance();
    if (!aims(first)) return [];
    const { beats } = at(spans, first);
    if (change < from) {
      const near = from - change <= Math.min(MEETS, beats / 2);
      return near ? [{ span: first, way: 'on', beat: from }] : [];
    }
    if (change > close + slot) return [];
    const possible = ways.filter(([way, weight]) => {
      const { struck, silent } = needs(way, change, slot);
      if (weight === 0 || (way === 'late' && (beats < 3 * slot || slot > MEETS))) return false;
      // An early note is held over: where an eighth is a whole beat it is none.
      if (way === 'early' && slot >= MEETS && metre.bar < 6 * BEAT) return false;
      return (
        struck.every(
          (beat) => beat >= from && beat <= close && (!inIdea(beat) || struckIn(beat)),
        ) && !silent.some((beat) => struckIn(beat) || (beat === close && way !== 'early'))
      );
    });
    if (possible.length === 0) return [];
    const way = weighed(possible, () => draw);
    const beat = way === 'early' ? change - slot : way === 'late' ? change + slot : change;
    return [{ span: first, way, beat }];
  });
}

/** The motif of a phrase, where it stands; its notes after the phrase has closed are left out. */
function ideaOf(phrase: PlannedPhrase, motif: Motif): readonly Draft[] {
  const own = played[phrase.role](motif);
  if (!own) return [];
  return own.onsets.flatMap((onset, index) => {
    const beat = phrase.from + onset;
    const step = index === 0 ? null : at(own.steps, index - 1);
    return beat < phrase.close ? [{ beat, step }] : [];
  });
}

/** Pulses in double time. */
const DOUBLED = 3;

/** Whether a phrase ends in double time: where its eighths leave room for sixteenths. */
function doubles(
  { bars }: PlannedPhrase,
  intent: Intent,
  { metre, style }: OnsetRequest,
  chance: Chance,
): boolean {
  const { double = 0 } = style;
  const eighths = pulseOf(metre) === 2 * metre.slot;
  return (
    double > 0 && eighths && bars.last > bars.first && intent !== 'coast' && drawn(chance, double)
  );
}

/** Everything that begins in one phrase. */
function phraseOnsets(
  phrase: PlannedPhrase,
  request: OnsetRequest,
  stretches: readonly Stretch[],
  intentAt: (beat: Beats) => Intent,
  chance: Chance,
): { readonly drafts: readonly Draft[]; readonly met: readonly Met[] } {
  const { plan, metre, style } = request;
  const { slot } = metre;
  const idea = ideaOf(phrase, plan.motif);
  const motif = idea.map(({ beat }) => beat);
  const met = metIn(phrase, motif, stretches, request, chance);
  const bounds: Bounds = {
    struck: [
      phrase.from,
      ...met.flatMap(({ way, beat, span }) => {
        const change = at(request.spans, span).beat;
        return beat === phrase.from ? [] : needs(way, change, slot).struck;
      }),
    ],
    silent: met.flatMap(({ way, span, beat }) =>
      beat === phrase.from ? [] : needs(way, at(request.spans, span).beat, slot).silent,
    ),
  };
  const free = motif.length === 0 ? phrase.from : (motif.at(-1) ?? phrase.from) + slot;
  // A last note that is anticipated closes the phrase where it begins.
  const early = bounds.silent.includes(phrase.close);
  const close = early ? phrase.close - slot : phrase.close;
  const intent = intentAt((phrase.from + phrase.close) / 2);
  const density = phrase.density * SAID[intent];
  const grid = intent === 'coast' ? { ...metre, triplets: false } : metre;
  // A phrase in double time goes on as it began until some beats before its close.
  const pulse = pulseOf(metre);
  const turns = doubles(phrase, intent, request, chance)
    ? Math.max(Math.ceil(free / pulse), Math.floor(close / pulse) - DOUBLED) * pulse
    : close;
  const twice = { ...metre, slot: slot / 2, triplets: false };
  const running = { ...style, cells: RUNNING };
  const rhythm = [
    ...rhythmIn(grid, style, free, turns, density, bounds, chance),
    ...(turns < close ? rhythmIn(twice, running, turns, close, 1, bounds, chance) : []),
  ].filter((beat) => bounds.struck.includes(beat) || intent !== 'coast' || drawn(chance, COASTS));
  const drafts = [...idea];
  for (const beat of [...rhythm, close]) {
    if (beat >= phrase.from && !drafts.some((one) => one.beat === beat))
      drafts.push({ beat, step: null });
  }
  return { drafts: drafts.toSorted((a, b) => a.beat - b.beat), met };
}

/** Everything that begins in a line. */
export function onsetsOf(request: OnsetRequest, chance: Chance): readonly Onset[] {
  const { plan, spans, metre, style } = request;
  const stretches = stretchesOf(spans);
  const pulse = pulseOf(metre);
  const spanAt = (beat: Beats): number =>
    spans.findLastIndex((span) => span.beat <= beat && beat < span.beat + span.beats);
  // A chord that goes on is said as much of as where it began.
  const intentAt = (beat: Beats): Intent => {
    const stretch = stretches.find((one) => one.beat <= beat && beat < one.end);
    return stretch ? at(spans, stretch.first).intent : 'coast';
  };
  const all: (Draft & { phrase: number; until: Beats; span: number; target: boolean })[] = [];
  for (const [phrase, planned] of plan.phrases.entries()) {
    const { drafts, met } = phraseOnsets(planned, request, stretches, intentAt, chance);
    for (const draft of drafts) {
      const lands = met.find(({ beat }) => beat === draft.beat);
      const span = lands?.span ?? spanAt(draft.beat);
      if (span < 0) continue;
      all.push({ ...draft, phrase, until: planned.to, span, target: lands !== undefined });
    }
  }
  const heads = new Set(stretches.map(({ first }) => first));
  const heard = new Set<number>();
  return all.map(({ beat, step, phrase, until, span, target }, index): Onset => {
    const next = all[index + 1];
    const before = all[index - 1];
    const ends = next?.phrase !== phrase;
    const begins = before?.phrase !== phrase;
    // Inside a phrase notes join, but for the longest of them.
    const most = ends ? until : Math.min(next.beat, beat + style.hold * pulse);
    const sounding = at(spans, span);
    const onward = spans[span + 1];
    const silence = !onward || onward.beat !== sounding.beat + sounding.beats;
    // No note reaches into a bar without a chord.
    const wall = silence ? sounding.beat + sounding.beats : Infinity;
    const meets = heads.has(span) && !heard.has(span);
    heard.add(span);
    return {
      beat,
      span,
      target,
      meets,
      phrase,
      begins,
      ends,
      beats: Math.max(metre.slot / 8, Math.min(most, next?.beat ?? Infinity, wall) - beat),
      step: begins ? null : step,
      strong: isStrong(beat, metre),
    };
  });
}

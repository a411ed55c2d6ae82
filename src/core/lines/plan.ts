/**
 * The plan of a line: phrases that breathe between them, made of one motif that is stated,
 * repeated, moved, answered, turned over, cut or left. A value that can be printed, said in words
 * and kept while the notes change.
 */
import { at } from '../lists';
import type { Beats } from '../time/units';
import { type Chance, drawn, oneOf, weighed } from './chance';
import { drawMotif, type Motif } from './motif';
import type { LineMetre } from './rhythm';

/** What a phrase does with the motif. */
export type PhraseRole =
  'statement' | 'repeat' | 'sequence' | 'answer' | 'inversion' | 'fragment' | 'free';

export interface PlannedPhrase {
  readonly role: PhraseRole;
  /** From where its first note may sound up to where its last one ends, in beats. */
  readonly from: Beats;
  readonly to: Beats;
  /** Where the motif enters. */
  readonly entry: Beats;
  /** Its bars, from 0, the last one included. */
  readonly bars: { readonly first: number; readonly last: number };
  /** Whether its last note leads over the bar line, onto the chord that comes. */
  readonly over: boolean;
  /** An open ending is a question, a closed one its answer. */
  readonly ending: 'open' | 'closed';
}

export interface LinePlan {
  readonly motif: Motif;
  readonly phrases: readonly PlannedPhrase[];
}

export interface PlanRequest {
  readonly metre: LineMetre;
  /** Where the form ends. */
  readonly end: Beats;
  /** A motif to work with; one is drawn where there is none. */
  readonly motif: Motif | null;
  /** Two bars Corvel and two bars for the player, in turn. */
  readonly calls: boolean;
}

/** How four bars are cut into phrases. */
const CUTS: readonly (readonly [readonly number[], number])[] = [
  [[2, 2], 6],
  [[3, 1], 2],
  [[1, 3], 1.5],
  [[1, 1, 2], 1],
  [[1, 2, 1], 0.5],
];

/** Lengths in bars that fill a form, four bars at a time. */
function lengthsOf(bars: number, calls: boolean, chance: Chance): readonly number[] {
  const lengths: number[] = [];
  let left = bars;
  while (left > 0) {
    const cut = calls ? [2, 2] : left >= 4 ? weighed(CUTS, chance) : [];
    const next =
      cut.length > 0
        ? cut
        : left === 3
          ? oneOf([[2, 1] as const, [1, 2] as const], chance)
          : left === 2
            ? [1, 1]
            : [1];
    for (const length of next) {
      if (left > 0) lengths.push(Math.min(length, left));
      left -= length;
    }
  }
  return lengths;
}

/** What follows a phrase: a question wants its answer, an idea may come back another way. */
function rolesOf(count: number, chance: Chance): readonly PhraseRole[] {
  const roles: PhraseRole[] = [];
  while (roles.length < count) {
    const place = roles.length;
    const last = roles.at(-1);
    if (place === 0) roles.push('statement');
    else if (place === 1) roles.push(weighed(SECOND, chance));
    else if (place === count - 1) roles.push(weighed(LAST, chance));
    else roles.push(weighed(last === 'free' ? AFTER_FREE : LATER, chance));
  }
  return roles;
}

const SECOND = [
  ['answer', 4],
  ['repeat', 2],
  ['sequence', 3],
] as const satisfies readonly (readonly [PhraseRole, number])[];
const LATER = [
  ['sequence', 3],
  ['repeat', 1.5],
  ['answer', 2],
  ['inversion', 1],
  ['fragment', 1],
  ['free', 2.5],
] as const satisfies readonly (readonly [PhraseRole, number])[];
const AFTER_FREE = [
  ['repeat', 2],
  ['sequence', 2],
  ['answer', 1],
] as const satisfies readonly (readonly [PhraseRole, number])[];
const LAST = [
  ['answer', 4],
  ['repeat', 1],
  ['free', 1],
] as const satisfies readonly (readonly [PhraseRole, number])[];

/** Where in its bar a motif enters, as shares of the bar: on it, after it, or late, as a pick-up. */
const ENTRIES = [
  [0, 3],
  [1 / 8, 2],
  [2 / 8, 1],
  [3 / 8, 1.5],
  [4 / 8, 2],
  [5 / 8, 2],
] as const;
/** From here on a phrase of the bar before still has time to land. */
const LATE = 3 / 8;
/** How often a first phrase that states its motif late begins before it. */
const LEAD_IN = 0.75;

const onGrid = (beat: Beats, per: number): Beats => Math.round(beat * per) / per;

/** The plan for a form, drawn by chance. */
export function planLine(request: PlanRequest, chance: Chance): LinePlan {
  const { metre, end, calls } = request;
  const { bar, per } = metre;
  const bars = Math.max(1, Math.ceil(end / bar - 1e-6));
  const lengths = lengthsOf(bars, calls, chance);
  // Where only one or two notes make a beat a late entry leaves no room.
  const entries = per * bar >= 6 ? ENTRIES : ENTRIES.slice(0, 1);
  const entryOf = () => onGrid(bar * weighed(entries, chance), per);
  const idea = entryOf();
  const motif = request.motif ?? drawMotif(metre, idea, chance);
  const roles = rolesOf(lengths.length, chance);
  let first = 0;
  const begun = lengths.map((length, which) => {
    const role = at(roles, which);
    const entry = which > 0 && role === 'free' ? entryOf() : idea;
    const from = first * bar + (length * bar > entry + bar / 2 ? entry : 0);
    // A line that enters late has something to say over its first chord too.
    const early = which === 0 && from >= bar * LATE - 1e-6 && drawn(chance, LEAD_IN);
    const phrase = {
      role,
      from: early ? 0 : from,
      entry: from,
      bars: { first, last: first + length - 1 },
    };
    first += length;
    return phrase;
  });
  const phrases = begun.map((phrase, which): PlannedPhrase => {
    const next = begun[which + 1];
    const border = (phrase.bars.last + 1) * bar;
    const last = next === undefined;
    const room = last ? 0 : next.from - border;
    const over = !last && !calls && room >= bar * LATE - 1e-6;
    const breath = onGrid(Math.min(bar / 4, weighed(BREATHS, chance) * (bar / 4)), per);
    const to = last
      ? end
      : calls
        ? border
        : over
          ? next.from - breath
          : Math.min(next.from, border) - breath;
    return {
      ...phrase,
      to: Math.max(phrase.from + 1 / per, to),
      over,
      ending: last || phrase.role === 'answer' ? 'closed' : drawn(chance, 0.7) ? 'open' : 'closed',
    };
  });
  const kept = calls ? phrases.filter((_, which) => which % 2 === 0) : phrases;
  return { motif, phrases: kept };
}

/** How long a breath is, in quarters of a bar. */
const BREATHS = [
  [0.5, 1],
  [1, 3],
] as const;

const ROLE_WORDS: Readonly<Record<PhraseRole, string>> = {
  statement: 'an idea',
  repeat: 'the idea again',
  sequence: 'the idea repeated',
  answer: 'its answer',
  inversion: 'the idea turned over',
  fragment: 'its beginning',
  free: 'something else',
};

const barWords = ({ bars: { first, last } }: PlannedPhrase): string =>
  first === last ? `bar ${first + 1}` : `bars ${first + 1}–${last + 1}`;

const INTERVALS = ['', 'a step', 'a third', 'a fourth', 'a fifth', 'a sixth', 'a seventh'] as const;

/** How far a phrase lies from the first, in steps: `a third lower`. */
function distanceWords(steps: number): string {
  const size = Math.abs(Math.round(steps));
  if (size === 0) return 'at pitch';
  const words = INTERVALS[size] ?? (size === 7 ? 'an octave' : 'more than an octave');
  return `${words} ${steps < 0 ? 'lower' : 'higher'}`;
}

/**
 * The plan in words: “a question over bars 1–2, answered over bars 3–4 a third lower”. Heights are
 * those of each phrase in steps above the first, where the notes are known.
 */
export function planWords(
  { phrases }: LinePlan,
  heights: readonly (number | null)[] = [],
): readonly string[] {
  return phrases.map((phrase, which) => {
    const { role, ending } = phrase;
    const height = heights[which] ?? null;
    const moved = height === null || role === 'statement' || role === 'free';
    const where = moved ? '' : `, ${distanceWords(height)}`;
    const over = barWords(phrase);
    if (role === 'statement' && ending === 'open') return `Call in ${over}`;
    if (role === 'answer') return `answer in ${over}${where}`;
    const words = ROLE_WORDS[role];
    return `${which === 0 ? words.replace(/^a/u, 'A') : words} in ${over}${where}`;
  });
}

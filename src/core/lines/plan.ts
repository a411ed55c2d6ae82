/**
 * The plan of a line: phrases that breathe between them, made of one motif that is stated, repeated, moved,
 * answered, turned over, cut or left; how high each lies, and the one climax. A value that can be printed,
 * said in words and kept while the notes change.
 */
import { at, modulo, range } from '../lists';
import type { Beats } from '../time/units';
import { byName, type Chance, drawn, weighed, type Weights } from './chance';
import { drawMotif, type Motif } from './motif';
import { type LineMetre, onGrid, pulseOf } from './rhythm';
import type { StyleRow } from './styles';

/** What a phrase does with the motif. */
export type PhraseRole =
  'statement' | 'repeat' | 'sequence' | 'answer' | 'inversion' | 'fragment' | 'free';

/** A phrase before it has notes: what it does, and from when to when. */
export interface PlannedPhrase {
  readonly role: PhraseRole;
  /** Where its first note begins, where its last one does, and where that one ends. */
  readonly from: Beats;
  readonly close: Beats;
  readonly to: Beats;
  /** Its bars, from 0, the last one included; a pick-up lies before the first. */
  readonly bars: { readonly first: number; readonly last: number };
  /** An open ending is a question, a closed one its answer. */
  readonly ending: 'open' | 'closed';
  /** How high it lies and how much it says, from 0 to 1. */
  readonly level: number;
  readonly density: number;
  /** Whether the highest note of the line is here. */
  readonly climax: boolean;
}

/** The phrases of a line, and the motif they share. */
export interface LinePlan {
  readonly motif: Motif;
  readonly phrases: readonly PlannedPhrase[];
}

interface PlanRequest {
  readonly metre: LineMetre;
  readonly style: StyleRow;
  /** Where the form ends. */
  readonly end: Beats;
  /** Where the last note may begin: the changes of the last bars. */
  readonly changes: readonly Beats[];
  /** A motif to work with; one is drawn where there is none. */
  readonly motif: Motif | null;
  /** Two bars Corvel and two bars for the player, in turn. */
  readonly calls: boolean;
  /** Whether a phrase begins in time for the change at its first bar line. */
  readonly everyChange?: boolean;
}

/** In sixteenths a breath carries no phrase of so many bars, and less is said in each. */
const QUICK = 3;
const LESS = 0.6;

/** Bars to each phrase, until a form is full; no single bar is left over where two would do. */
function lengthsOf(
  bars: number,
  style: StyleRow,
  { quick, calls }: { readonly quick: boolean; readonly calls: boolean },
  chance: Chance,
): readonly number[] {
  const lengths: number[] = [];
  for (let left = bars; left > 0; left -= at(lengths, lengths.length - 1)) {
    const fits = style.bars.filter(
      ([length]) => length <= left && left - length !== 1 && (!quick || length < QUICK),
    );
    const drawnLength = calls || fits.length === 0 ? 2 : weighed(fits, chance);
    lengths.push(Math.min(left, drawnLength));
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

const SECOND: Weights<PhraseRole> = byName({ answer: 4, repeat: 2, sequence: 3 });
const LATER: Weights<PhraseRole> = byName({
  sequence: 3,
  repeat: 1.5,
  answer: 2,
  inversion: 1,
  fragment: 1,
  free: 2.5,
});
const AFTER_FREE: Weights<PhraseRole> = byName({ repeat: 2, sequence: 2, answer: 1 });
const LAST: Weights<PhraseRole> = byName({ answer: 4, repeat: 1, free: 1 });

/** From where in a form its climax may come, and how high phrases lie that are none. */
const CLIMAX = { from: 0.36, low: 0.15, high: 0.6 } as const;

/** How high each phrase lies: here and there, one of them at the top, the last at rest. */
function levelsOf(
  count: number,
  chance: Chance,
): readonly { readonly level: number; readonly climax: boolean }[] {
  const first = Math.min(count - 1, Math.ceil(count * CLIMAX.from));
  const last = Math.max(first, count - 2);
  const top = first + Math.floor(chance() * (last - first + 1));
  return range(0, count).map((which) => {
    const level = CLIMAX.low + (CLIMAX.high - CLIMAX.low) * chance();
    return which === top ? { level: 1, climax: true } : { level, climax: false };
  });
}

/** The bars of a phrase, and where in them it stands among the others. */
interface Stretched {
  readonly first: number;
  readonly last: number;
  readonly role: PhraseRole;
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

/** How far into its pulse a beat lies. */
const phaseOf = (beat: Beats, pulse: Beats): Beats => modulo(beat, pulse);

/** Where a phrase begins: after the breath before it, and an idea that comes back on the beat or off it as it did. */
function beginningOf(
  { first, role, isFirst }: Stretched,
  { metre, style, calls, everyChange = false }: PlanRequest,
  free: Beats,
  aside: number,
  chance: Chance,
): Beats {
  const { bar, slot } = metre;
  const pulse = pulseOf(metre);
  const border = first * bar;
  const stands = (offset: number) => onGrid(border + (offset * pulse) / 2, slot);
  const possible = style.starts.filter(
    ([offset]) =>
      stands(offset) >= (calls ? border : free) &&
      stands(offset) < border + bar &&
      (!everyChange || offset <= 2),
  );
  const alike = possible.filter(
    ([offset]) => isFirst || role === 'free' || phaseOf(stands(offset), pulse) === aside,
  );
  const choice = alike.length > 0 ? alike : possible;
  return choice.length > 0 ? stands(weighed(choice, chance)) : onGrid(Math.max(free, border), slot);
}

/** Where the last note of a phrase begins, and where it ends. */
function closeOf(
  { last, isLast }: Stretched,
  { metre, style, end, changes, calls }: PlanRequest,
  from: Beats,
  chance: Chance,
): Pick<PlannedPhrase, 'close' | 'to'> {
  const { bar, slot } = metre;
  const half = pulseOf(metre) / 2;
  const ends = style.ends.filter(([offset]) => last * bar + offset * half >= from + 2 * half);
  const wanted = ends.length === 0 ? from : last * bar + weighed(ends, chance) * half;
  const over = calls ? (last + 1) * bar : end;
  const close = isLast
    ? closingOf(changes, from, end, half)
    : onGrid(Math.max(from, Math.min(wanted, over - 2 * half)), slot);
  const ring = weighed(style.rings, chance) * 2 * half;
  const stop = isLast ? end : calls ? over : end - slot;
  const rings = isLast ? Math.max(ring, bar / 2) : ring;
  return { close, to: Math.max(close + slot / 2, Math.min(stop, close + rings)) };
}

/** The plan for a form, drawn by chance. */
export function planLine(request: PlanRequest, chance: Chance): LinePlan {
  const { metre, style, end, calls } = request;
  const { bar, slot } = metre;
  const pulse = pulseOf(metre);
  const bars = Math.max(1, Math.ceil(end / bar));
  const quick = pulse >= 4 * slot;
  const lengths = lengthsOf(bars, style, { quick, calls }, chance);
  const roles = rolesOf(lengths.length, chance);
  const levels = levelsOf(lengths.length, chance);
  const [least, most] = style.density;
  const phrases: PlannedPhrase[] = [];
  let motif = request.motif;
  /** How far from the beat the motif begins, which it keeps. */
  let aside = 0;
  let free = 0;
  let first = 0;
  for (const [which, length] of lengths.entries()) {
    const role = at(roles, which);
    const last = first + length - 1;
    const isLast = which === lengths.length - 1;
    const stretch: Stretched = { first, last, role, isFirst: which === 0, isLast };
    const from = beginningOf(stretch, request, free, aside, chance);
    const before = phrases.at(-1);
    if (before) {
      const breath = weighed(style.breaths, chance) * pulse;
      const to = Math.max(before.close + slot, Math.min(before.to, from - breath));
      phrases[which - 1] = { ...before, to };
    }
    if (which === 0) {
      aside = phaseOf(from, pulse);
      motif ??= drawMotif(metre, style, modulo(from, bar), chance);
    }
    const { close, to } = closeOf(stretch, request, from, chance);
    const through = which / Math.max(1, lengths.length - 1);
    const { level, climax } = at(levels, which);
    phrases.push({
      role,
      from,
      close,
      to,
      level,
      climax,
      bars: { first, last },
      ending: isLast || role === 'answer' ? 'closed' : drawn(chance, 0.7) ? 'open' : 'closed',
      // The second half says more.
      density: Math.min(
        1,
        (quick ? LESS : 1) * (least + (most - least) * (0.25 + 0.6 * through + 0.3 * chance())),
      ),
    });
    // What comes next may cut the ringing short, but not the breath.
    free = close + slot + pulse;
    first += length;
  }
  const kept = calls ? phrases.filter((_, which) => which % 2 === 0) : phrases;
  return { motif: motif ?? drawMotif(metre, style, 0, chance), phrases: kept };
}

/** Where the last note begins: on the last change that leaves it room to ring, else in the last bar. */
function closingOf(changes: readonly Beats[], from: Beats, end: Beats, half: Beats): Beats {
  const latest = Math.max(from, end - 4 * half);
  const change = changes.findLast((beat) => beat >= from && beat <= end - 2 * half);
  return change === undefined || change < latest - 4 * half ? latest : change;
}

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

/**
 * A player's own pattern, as he says it: degrees of whatever chord it is laid on, with signs.
 *
 *     5 3 1 7          degrees; a plain number is the chord's or its scale's own: 7 over Dm7 is C
 *     b3 #4 n7         flat, sharp, and as in the major scale (n), whatever the chord has
 *     1 ~3 5           a leap: the third below the root, not above it; ^3 above; ~~3 an octave further
 *     <1 >3            approached from a half step below, from a step above
 *     (2 7)1           enclosed: by the second above and the seventh below, then the root
 *     5_ 3 r           one value longer for each _; a rest
 *     1:q 2:e 3:q.     note values of its own: w h q e s, with . dotted and t triplet
 *     … 1 2 3 5        goes on where the last one ended, instead of low in the zone
 *     on m7, 7: 1 2 3  only over these kinds of chords
 */
import { parseQuality } from '../../chords/symbols';
import type { Quality } from '../../chords/qualities';
import { parseDegree } from '../../notes/degrees';
import { type Interval, step } from '../../notes/notes';
import { BEAT, type Beats } from '../../time/units';
import { PATTERN_LIMITS } from '../kinds';

/** A degree that is asked for. */
export interface DegreeAsked {
  /** From the root, 0–6. */
  readonly step: number;
  /** The degree itself where it is said; null for the chord's own. */
  readonly exact: Interval | null;
  /** Whether it is meant above the octave: 8 and more. */
  readonly high: boolean;
}

/** How a note is reached from the one before: on the shorter way, or by a leap down or up. */
export interface Way {
  readonly to: 'near' | 'below' | 'above';
  /** Octaves beyond the nearest there. */
  readonly further: number;
}

/** How long it lasts where a quarter note is a beat; null for one of the exercise's notes. */
type Length = Beats | null;

/** A note of a pattern: a degree, the way to it and how long it lasts. */
export interface PatternNote {
  readonly kind: 'note';
  readonly degree: DegreeAsked;
  readonly way: Way;
  /** From which side it is approached. */
  readonly approach: 'below' | 'above' | null;
  /** What is played around it before it comes. */
  readonly around: readonly DegreeAsked[];
  readonly length: Length;
  /** How many lengths it lasts. */
  readonly held: number;
}

/** A rest of a pattern. */
export interface PatternRest {
  readonly kind: 'rest';
  readonly length: Length;
  readonly held: number;
}

export type PatternItem = PatternNote | PatternRest;

/** A pattern as it was read. */
export interface OwnPattern {
  readonly items: readonly PatternItem[];
  /** Whether it begins where what was played before it ended. */
  readonly continues: boolean;
  /** The kinds of chords it is played on; all where none is named. */
  readonly on: readonly Quality[];
}

/** Something that cannot be read: where it stands in the text, and why. */
export interface PatternProblem {
  readonly from: number;
  readonly to: number;
  readonly message: string;
}

/** The pattern of a text, or what is wrong with it and where. */
export type PatternResult =
  | { readonly ok: true; readonly pattern: OwnPattern }
  | { readonly ok: false; readonly problems: readonly PatternProblem[] };

/** Values by their letters, the longest first, where a quarter note is a beat. */
export const VALUES: Readonly<Record<string, Beats>> = {
  w: 4 * BEAT,
  h: 2 * BEAT,
  q: BEAT,
  e: BEAT / 2,
  s: BEAT / 4,
};

/** How long a value with a dot lasts, or as one of a triplet. */
export const signed = (value: Beats, mark: string | undefined): Beats =>
  mark === '.' ? (value * 3) / 2 : mark === 't' ? (value * 2) / 3 : value;

const LENGTH = /^(.*?)(_*)(?::([whqes])(\.|t)?)?(_*)$/u;
const NOTE = /^(\([^()]*\))?([<>])?([~^]*)([b♭#♯n♮]*\d+)$/u;
const DEGREE = /^([b♭#♯n♮]*)(\d+)$/u;
const TOKEN = /\([^()]*\)\S*|[^\s,|–-]+/gu;
/** Digits said in one breath: 1235. */
const RUN = /^[1-7]{3,}$/u;

const ONLY = /^\s*on\s+([^:]*):(?=\s|$)/iu;

/** The degree that is written; null where it is none. */
function degreeAsked(text: string): DegreeAsked | null {
  const [, signs = '', number = ''] = DEGREE.exec(text) ?? [];
  const natural = /^[n♮]$/u.test(signs);
  if (!natural && /[n♮]/u.test(signs)) return null;
  const parsed = parseDegree(`${natural ? '' : signs}${number}`);
  if (parsed === null) return null;
  return {
    step: step(parsed),
    exact: signs === '' ? null : parsed,
    high: Number(number) > 7,
  };
}

const wayOf = (leaps: string): Way | null => {
  if (leaps === '') return { to: 'near', further: 0 };
  if (!/^(?:~+|\^+)$/u.test(leaps)) return null;
  return { to: leaps.startsWith('~') ? 'below' : 'above', further: leaps.length - 1 };
};

const NO_DEGREE = (text: string): string =>
  `“${text}” is no degree: write 1 to 13, with b or # before it.`;

/** What a word of a pattern says; a sentence where it says nothing. */
function readWord(word: string): readonly PatternItem[] | string {
  const [, body = '', before = '', letter, mark, after = ''] = LENGTH.exec(word) ?? [];
  const value = letter === undefined ? undefined : VALUES[letter];
  const length = value === undefined ? null : signed(value, mark);
  const held = 1 + before.length + after.length;
  if (body === '' || body === 'r') {
    return body === 'r' ? [{ kind: 'rest', length, held }] : 'There is no note before this sign.';
  }
  if (RUN.test(body)) {
    return [...body].flatMap((digit) => {
      const degree = degreeAsked(digit);
      const way = { to: 'near', further: 0 } as const;
      return degree
        ? [{ kind: 'note' as const, degree, way, approach: null, around: [], length, held }]
        : [];
    });
  }
  const [, enclosure, approach, leaps = '', written = body] = NOTE.exec(body) ?? [];
  const degree = degreeAsked(written);
  if (!degree) return NO_DEGREE(written);
  const way = wayOf(leaps);
  if (!way) return `“${leaps}” leaps both ways: write ~ for down or ^ for up.`;
  const around: DegreeAsked[] = [];
  for (const inner of enclosure
    ?.slice(1, -1)
    .split(/[\s,–-]+/u)
    .filter(Boolean) ?? []) {
    const one = degreeAsked(inner);
    if (!one) return NO_DEGREE(inner);
    around.push(one);
  }
  if (enclosure !== undefined && around.length === 0)
    return 'Nothing stands in these parentheses: write the degrees around the note, as in (2 7)1.';
  const side = approach === '<' ? 'below' : approach === '>' ? 'above' : null;
  return [{ kind: 'note', degree, way, approach: side, around, length, held }];
}

/**
 * Reads a pattern; says what it cannot read, at its place in the text.
 *
 * @example parsePattern('1 ~7 5 3').ok; // true
 */
export function parsePattern(text: string): PatternResult {
  const problems: PatternProblem[] = [];
  const problem = (from: number, to: number, message: string) =>
    void problems.push({ from, to, message });
  if (text.length > PATTERN_LIMITS.characters) {
    problem(0, text.length, `A pattern has at most ${PATTERN_LIMITS.characters} characters.`);
    return { ok: false, problems };
  }
  const on: Quality[] = [];
  let begin = 0;
  const only = ONLY.exec(text);
  if (only) {
    begin = only[0].length;
    const listed = only[1] ?? '';
    const start = only[0].indexOf(listed, 2);
    for (const match of listed.matchAll(/[^\s,]+/gu)) {
      const from = start + match.index;
      const found = parseQuality(match[0] === 'maj' ? '' : match[0]);
      if (found) on.push(found);
      else {
        const message = `“${match[0]}” is no kind of chord: write m7, 7, maj7, or maj for a plain major chord.`;
        problem(from, from + match[0].length, message);
      }
    }
    if (on.length === 0 && problems.length === 0)
      problem(0, begin, 'Say which chords: on m7: 1 2 3 5.');
  }
  const items: PatternItem[] = [];
  let continues = false;
  let first = true;
  for (const match of text.slice(begin).matchAll(TOKEN)) {
    const [word] = match;
    const from = begin + match.index;
    if (first && (word === '…' || word === '...')) {
      continues = true;
      first = false;
      continue;
    }
    first = false;
    const read = readWord(word);
    if (typeof read === 'string') problem(from, from + word.length, read);
    else items.push(...read);
  }
  if (items.length > PATTERN_LIMITS.items)
    problem(begin, text.length, `A pattern has at most ${PATTERN_LIMITS.items} notes and rests.`);
  if (problems.length === 0 && !items.some(({ kind }) => kind === 'note'))
    problem(0, text.length, 'Write some degrees: 1 2 3 5.');
  return problems.length > 0
    ? { ok: false, problems }
    : { ok: true, pattern: { items, continues, on } };
}

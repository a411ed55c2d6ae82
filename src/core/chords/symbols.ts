/** Reading the chord spellings players write. */
import { lookUp } from '../lists';
import { rememberBy } from '../cache';
import { beginsGerman, beginsSolFa, inLetters } from '../notes/naming';
import { parseNote } from '../notes/notes';
import type { Chord } from './chords';
import { buildQuality, type Quality, type QualityParts } from './qualities';

interface Draft extends QualityParts {
  alterations: string[];
  additions: string[];
  omissions: ('1' | '3' | '5')[];
  suspended: ('2' | '4')[];
  /** A bare major sign: the next number is a major seventh, or its absence a plain triad. */
  majorSign: boolean;
  /** Whether anything has set the seventh already. */
  numbered: boolean;
}

interface Rule {
  readonly pattern: RegExp;
  /** Applies the match; false, with the draft untouched, when it cannot stand here. */
  readonly apply: (draft: Draft, match: RegExpExecArray) => boolean;
}

function setTriad(draft: Draft, triad: QualityParts['triad']): boolean {
  if (draft.triad !== 'major') return false;
  draft.triad = triad;
  return true;
}

function setNumber(draft: Draft, number: string): boolean {
  if (draft.numbered) return false;
  draft.numbered = true;
  draft.extension = Number(number) as 7 | 9 | 11 | 13;
  draft.seventh = draft.majorSign
    ? 'major'
    : draft.triad === 'diminished' && draft.seventh === 'none'
      ? 'diminished'
      : 'minor';
  return true;
}

function addAlteration(draft: Draft, sign: string, number: string): boolean {
  const accidental = sign === '#' || sign === '♯' || sign === '+' ? '#' : 'b';
  const tension = { '2': '9', '4': '11', '6': '13' }[number] ?? number;
  const name = accidental + tension;
  if (['#13', 'b11', '#7', 'b7'].includes(name)) return false;
  if (name === '#5' && draft.triad === 'major') draft.triad = 'augmented';
  else if (name === 'b5' && draft.triad === 'minor') draft.triad = 'diminished';
  else if (name === 'b5' && draft.triad === 'diminished') return true;
  else if (name === '#5' && draft.triad === 'augmented') return true;
  else if (draft.alterations.includes(name)) return false;
  else draft.alterations.push(name);
  return true;
}

/** Tried in order at every place of the text after the root. */
const RULES: readonly Rule[] = [
  {
    pattern: /^(?:maj|ma(?!dd))|^[Mm][Aa][Jj]|^M[Aa](?!dd)|^M(?![Ii])|^[Δ△]/u,
    apply: (draft, match) => {
      if (draft.majorSign || draft.numbered) return false;
      draft.majorSign = true;
      // The triangle alone already says major seventh.
      if (/[Δ△]/u.test(match[0])) {
        draft.seventh = 'major';
      }
      return true;
    },
  },
  {
    pattern: /^(?:[Mm][Ii][Nn]|[Mm][Ii]|m|-(?=$|[^0-9]|6|7|9|11|13))/u,
    apply: (draft) => !draft.numbered && !draft.majorSign && setTriad(draft, 'minor'),
  },
  {
    pattern: /^ø/u,
    apply: (draft) => {
      draft.seventh = 'minor';
      return !draft.numbered && setTriad(draft, 'diminished');
    },
  },
  {
    pattern: /^(?:[Dd][Ii][Mm]|°|o(?!mit))/u,
    apply: (draft) => !draft.numbered && !draft.majorSign && setTriad(draft, 'diminished'),
  },
  {
    pattern: /^(?:[Aa][Uu][Gg]|\+(?!\d))/u,
    apply: (draft) => setTriad(draft, 'augmented'),
  },
  {
    // A plus before a plain 7 or 9 raises the fifth: C+7, C+9.
    pattern: /^\+(?=7|9)/u,
    apply: (draft) => !draft.numbered && setTriad(draft, 'augmented'),
  },
  {
    pattern: /^[Ss][Uu][Ss](24|42|2|4)?/u,
    apply: (draft, match) => {
      if (draft.suspended.length > 0 || draft.triad !== 'major') return false;
      draft.suspended = match[1]?.length === 2 ? ['2', '4'] : [match[1] === '2' ? '2' : '4'];
      return true;
    },
  },
  {
    pattern: /^[Aa][Dd][Dd]([#b♯♭])?(2|4|6|9|11|13)/u,
    apply: (draft, match) => {
      const number = { '2': '9', '4': '11', '6': '13' }[match[2] ?? ''] ?? match[2] ?? '';
      const sign = match[1] === undefined ? '' : /[#♯]/u.test(match[1]) ? '#' : 'b';
      if (draft.additions.includes(sign + number)) return false;
      draft.additions.push(sign + number);
      return true;
    },
  },
  {
    pattern: /^(?:[Nn][Oo]|[Oo][Mm][Ii][Tt])([135])/u,
    apply: (draft, match) => {
      const omitted = match[1] as '1' | '3' | '5';
      if (draft.omissions.includes(omitted)) return false;
      draft.omissions.push(omitted);
      return true;
    },
  },
  {
    pattern: /^[Aa][Ll][Tt]/u,
    apply: (draft) => {
      if (draft.triad !== 'major' || draft.seventh === 'major' || draft.altered) return false;
      draft.altered = true;
      draft.seventh = 'minor';
      return true;
    },
  },
  {
    pattern: /^6\/?9|^6/u,
    apply: (draft, match) => {
      if (draft.numbered || draft.majorSign) return false;
      draft.numbered = true;
      draft.seventh = 'sixth';
      if (match[0].length > 1) draft.additions.push('9');
      return true;
    },
  },
  {
    pattern: /^5$/u,
    apply: (draft) => !draft.numbered && setTriad(draft, 'power'),
  },
  {
    pattern: /^(7|9|11|13)/u,
    apply: (draft, match) => setNumber(draft, match[1] ?? '7'),
  },
  {
    pattern: /^([#b♯♭+-])(5|6|9|11|13|2|4)/u,
    apply: (draft, match) => addAlteration(draft, match[1] ?? '', match[2] ?? ''),
  },
];

function readParts(text: string): Draft | null {
  const draft: Draft = {
    triad: 'major',
    seventh: 'none',
    extension: 7,
    suspended: [],
    altered: false,
    alterations: [],
    additions: [],
    omissions: [],
    majorSign: false,
    numbered: false,
  };
  let rest = text;
  let open = 0;
  while (rest !== '') {
    const punctuation = /^[(), ]/u.exec(rest)?.[0];
    if (punctuation !== undefined) {
      if (punctuation === '(') open += 1;
      if (punctuation === ')') open -= 1;
      if (open < 0 || open > 1 || (open === 0 && punctuation !== ')')) return null;
      rest = rest.slice(1);
      continue;
    }
    const taken = applyFirst(draft, rest);
    if (taken === 0) return null;
    rest = rest.slice(taken);
  }
  return open === 0 && consistent(draft) ? draft : null;
}

function applyFirst(draft: Draft, rest: string): number {
  for (const rule of RULES) {
    const match = rule.pattern.exec(rest);
    if (match && rule.apply(draft, match)) return match[0].length;
  }
  return 0;
}

function consistent(draft: Draft): boolean {
  const clashing =
    (draft.suspended.length > 0 && draft.triad !== 'major' && draft.triad !== 'augmented') ||
    (draft.altered && (draft.extension !== 7 || draft.alterations.length > 0));
  return !clashing;
}

/** Reads what follows the root, `m7b5` or `(maj7)`; null when it is not a chord quality. */
export const parseQuality = rememberBy(
  (text: string) => text,
  (text): Quality | null => {
    const parts = text.length > 40 ? null : readParts(text);
    return parts === null ? null : buildQuality(parts);
  },
);

/**
 * Like {@link parseQuality} for text the program itself wrote; throws on anything else.
 *
 * @example quality('m7b5').degrees.map(degreeName); // ["1","b3","b5","b7"]
 */
export function quality(text: string): Quality {
  const parsed = parseQuality(text);
  if (parsed === null) throw new RangeError(`"${text}" is not a chord quality.`);
  return parsed;
}

// A double flat straight before a 5 is a flat root with a flat fifth: Abb5.
const SYMBOL_PATTERN = /^([A-G](?:bb(?!5)|##|[#b♯♭x𝄪𝄫])?)(.*?)(?:\/([A-G](?:bb|##|[#b♯♭x𝄪𝄫])?))?$/u;

/** Two readings are common for these; the player says which. */
const AMBIGUOUS: Readonly<Record<string, readonly [string, string]>> = {
  '2': ['sus2', 'add9'],
  '4': ['sus4', 'add11'],
};

/**
 * Reads a chord symbol: `Ebmaj7`, `F#ø`, `C7/Bb`; null when the text is not one.
 *
 * @example
 * noteName(parseChord("F#ø").root); // "F#"
 * parseChord("Xy7"); // null
 */
export function parseChord(text: string): Chord | null {
  const match = SYMBOL_PATTERN.exec(text);
  const root = parseNote(match?.[1] ?? '');
  const found = parseQuality(match?.[2] ?? '');
  if (!match || root === null || found === null) return null;
  const bass = match[3] === undefined ? null : parseNote(match[3]);
  return { symbol: text, root, quality: found, bass: bass === root ? null : bass };
}

/** What is typed in haste as it is meant: `gm7` is Gm7, `bb7` B flat 7; `b` alone could be either. */
const AMBIGUOUS_ROOT = 'b';

/**
 * Reads a chord as it is typed by hand: in small letters too, and by German or sol-fa names. `doIsC` says
 * that the text it stands in is in sol-fa.
 *
 * @example chordName(parseTyped('sibmaj7')); // "Bbmaj7"
 */
export function parseTyped(text: string, doIsC = false): Chord | null {
  const lettered = inLetters(text, doIsC);
  const read = doIsC && /^do/iu.test(text) ? null : parseLetters(text);
  return read ?? (lettered === text ? null : parseChord(lettered));
}

function parseLetters(text: string): Chord | null {
  const chord = parseChord(text);
  if (chord || text === AMBIGUOUS_ROOT || !/^[a-g]/u.test(text)) return chord;
  const meant = text.replace(/^[a-g]|\/[a-g]/gu, (letter) => letter.toUpperCase());
  return parseChord(meant);
}

/** Whether a chord is named in sol-fa and can be nothing else. */
export const isSolFa = (text: string): boolean =>
  beginsSolFa(text) && parseLetters(text) === null && parseChord(inLetters(text)) !== null;

/** Whether a chord's root is named H. */
export const isGerman = (text: string): boolean =>
  beginsGerman(text) && parseChord(inLetters(text)) !== null;

/** A sentence that says what is wrong with a text {@link parseTyped} refuses. */
export function explainUnreadable(text: string): string {
  const match = SYMBOL_PATTERN.exec(text);
  const choice = lookUp(AMBIGUOUS, match?.[2] ?? '');
  if (match && choice) {
    const root = match[1] ?? '';
    return `“${text}” has two common readings: write ${root}${choice[0]} or ${root}${choice[1]}.`;
  }
  if (match)
    return `“${match[2] ?? ''}” after ${match[1] ?? ''} is not a chord spelling Corvel knows.`;
  if (text === AMBIGUOUS_ROOT) return '“b” could be the chord B or a flat: write B, or Bb.';
  if (/^[a-g]/u.test(text)) return explainUnreadable(text.charAt(0).toUpperCase() + text.slice(1));
  return `“${text}” is not a chord: it begins with no root A to G and no Roman numeral.`;
}

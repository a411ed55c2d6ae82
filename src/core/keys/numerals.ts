/**
 * Roman numerals against a key. Roots are always counted from the major scale of the tonic, so
 * that minor keys write bIII, bVI and bVII; the case of the numeral says major or minor.
 */
import { type Chord, chordName } from '../chords/chords';
import type { Quality } from '../chords/qualities';
import { degreeOver } from '../chords/over';
import { parseQuality } from '../chords/symbols';
import { degree, degreeName, parseDegree } from '../notes/degrees';
import {
  alteration,
  type Interval,
  intervalBetween,
  keptNear,
  noteFromLetter,
  type Note,
  step,
  transpose,
} from '../notes/notes';
import type { Key } from './keys';

const NUMERALS = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'] as const;
const NUMERAL = '([b♭]{0,2}|[#♯]{0,2})(VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i)';
const NUMERAL_PATTERN = new RegExp(`^${NUMERAL}(.*?)(?:/(?:${NUMERAL}|([b#]{0,2}[1-7])))?$`, 'u');

const rootDegree = (signs: string, numeral: string): Interval => {
  const index = (NUMERALS as readonly string[]).indexOf(numeral.toUpperCase());
  const sharps = /[b♭]/u.test(signs) ? -signs.length : signs.length;
  return noteFromLetter('CDEFGAB'[index] ?? 'C', sharps) as number as Interval;
};

/** Whether a text begins as a Roman numeral rather than as a chord root. */
export const looksLikeNumeral = (text: string): boolean => /^[b#♭♯]{0,2}[IViv]/u.test(text);

/** A quality for what follows the numeral, whose case already says minor. */
function numeralQuality(numeral: string, suffix: string): Quality | null {
  const lower = numeral === numeral.toLowerCase();
  if (!lower) return parseQuality(suffix);
  if (/^(?:m(?!aj|a)|-|min|ø|°|o|dim)/u.test(suffix)) return parseQuality(suffix);
  return parseQuality(`m${suffix}`) ?? parseQuality(suffix);
}

/**
 * Reads `ii7`, `V7/ii`, `#ivo7`, `I/3` in a key; null when the text is not a numeral.
 *
 * @example chordName(parseNumeral('V7', parseKey('A'))); // "E7"
 */
export function parseNumeral(text: string, key: Key): Chord | null {
  const match = NUMERAL_PATTERN.exec(text);
  if (!match) return null;
  const [, signs = '', numeral = '', suffix = '', ofSigns = '', of, bassDegree] = match;
  const quality = numeralQuality(numeral, suffix);
  if (quality === null) return null;
  const home = of === undefined ? key.tonic : transpose(key.tonic, rootDegree(ofSigns, of));
  const root = transpose(home, rootDegree(signs, numeral));
  const degree = bassDegree === undefined ? null : parseDegree(bassDegree);
  const bass = degree === null || degree === 0 ? null : transpose(root, degree);
  return { symbol: chordName({ symbol: '', root, quality, bass }), root, quality, bass };
}

const signs = (count: number) => (count < 0 ? 'b'.repeat(-count) : '#'.repeat(count));

/** The bare numeral of a degree: `bVII`, or `ii` in lower case. */
export function numeralOf(degree: Interval, lowerCase: boolean): string {
  const numeral = NUMERALS[step(degree)] ?? 'I';
  return signs(alteration(degree)) + (lowerCase ? numeral.toLowerCase() : numeral);
}

const LOWER_SUFFIX: readonly (readonly [RegExp, string])[] = [
  [/^m7b5/u, 'ø7'],
  [/^m9b5/u, 'ø9'],
  [/^m11b5/u, 'ø11'],
  [/^dim/u, 'o'],
  [/^m/u, ''],
];

const isLowerCase = ({ quality }: Chord): boolean => /^(?:m(?!aj)|dim)/u.test(quality.name);

/**
 * The numeral with its quality: `iiø7`, `V7`, `bVIImaj7`, `i(maj7)`; a slash bass as its degree.
 *
 * @example writeNumeral(parseChord('Dm7'), parseKey('C')); // "ii7"
 */
export function writeNumeral(chord: Chord, key: Key): string {
  const name = chord.quality.name;
  const lower = isLowerCase(chord);
  const rule = lower ? LOWER_SUFFIX.find(([pattern]) => pattern.test(name)) : undefined;
  const suffix = rule ? name.replace(rule[0], rule[1]) : name;
  const bass = chord.bass === null ? '' : `/${degreeName(intervalBetween(chord.root, chord.bass))}`;
  return numeralOf(intervalBetween(key.tonic, chord.root), lower) + suffix + bass;
}

/** What is passed through on the way up is written on raised degrees too: `#io7`, `#iio7`. */
const HIGHEST_PASSED = degree('#6');

/**
 * A root as a numeral counts it, from b5 to #4 in fifths, where a chart spells it the convenient way:
 * B rather than C flat in C.
 */
export const usualRoot = (root: Note, key: Key, lowerCase = false): Note =>
  keptNear(root, key.tonic, lowerCase ? HIGHEST_PASSED : undefined);

/** The numeral as it is usually read: `bVI` for E in A flat, `ii7` for G flat minor seventh in E. */
export function writeUsualNumeral(chord: Chord, key: Key): string {
  const root = usualRoot(chord.root, key, isLowerCase(chord));
  const over = chord.bass === null ? null : degreeOver(chord, chord.bass);
  return writeNumeral({ ...chord, root, bass: over === null ? null : transpose(root, over) }, key);
}

/** `V7/ii`: a chord named by the degree it leads to. */
export function writeAppliedNumeral(chord: Chord, target: Note, key: Key): string {
  const home: Key = { tonic: target, mode: 'major' };
  const of = numeralOf(intervalBetween(key.tonic, target), false);
  return `${writeNumeral({ ...chord, bass: null }, home)}/${of}`;
}

const DECIMAL_PATTERN = /^([b♭]{0,2}|[#♯]{0,2})([1-7])(.*?)(?:\/([b♭#♯]{0,2}[1-7]))?$/u;

/** Whether a text begins as a decimal numeral. */
export const looksLikeDecimal = (text: string): boolean => /^[b#♭♯]{0,2}[1-7]/u.test(text);

/**
 * Reads `1`, `2m7`, `57`, `#4ø7`, `1/3` in a key; null when the text is no decimal numeral. A bare number
 * is a major chord, as number charts write it; what stands under a slash is counted from the key.
 *
 * @example chordName(parseDecimal('2m7', parseKey('C'))); // "Dm7"
 */
export function parseDecimal(text: string, key: Key): Chord | null {
  const match = DECIMAL_PATTERN.exec(text.normalize('NFKC'));
  const [, signs = '', number = '', suffix = '', under] = match ?? [];
  const quality = match ? parseQuality(suffix) : null;
  if (quality === null) return null;
  const counted = (written: string) => {
    const degree = parseDegree(written.replace(/♭/gu, 'b').replace(/♯/gu, '#'));
    return degree === null ? null : transpose(key.tonic, degree);
  };
  const root = counted(signs + number);
  const bass = under === undefined ? null : counted(under);
  if (root === null) return null;
  const chord = { symbol: '', root, quality, bass: bass === root ? null : bass };
  return { ...chord, symbol: chordName(chord) };
}

const SUPERSCRIPTS = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const raised = (digits: string): string =>
  [...digits].map((digit) => SUPERSCRIPTS.charAt(Number(digit))).join('');

/** A Roman numeral in figures: `ii7` is `2m7`, `V7/ii` is `5⁷ of 2m`, `V/3`, with its third below, `5/7`. */
export function decimalOf(numeral: string): string {
  const match = NUMERAL_PATTERN.exec(numeral);
  if (!match) return numeral;
  const [, signs = '', roman = '', suffix = '', ofSigns = '', of, third] = match;
  const figure = (name: string) =>
    String((NUMERALS as readonly string[]).indexOf(name.toUpperCase()) + 1);
  const lower = roman === roman.toLowerCase();
  const own = suffix.replace(/^o/u, '°');
  const minor = lower && !/^[ø°]|^dim/u.test(own) ? 'm' : '';
  const quality = minor + own;
  const shown = quality.replace(/^\d+/u, raised);
  const over = third === undefined ? null : parseDegree(third);
  const bass = over === null ? '' : `/${degreeName((rootDegree(signs, roman) + over) as Interval)}`;
  const target = of === undefined ? '' : ` of ${decimalOf(ofSigns + of)}`;
  return signs + figure(roman) + shown + target + bass;
}

const QUALITY = '(?:maj|m|dim|sus|alt|aug|add|o|ø|°|△|\\+|[b#♭♯]?\\d+|\\([^()\\s]*\\))*';
const IN_WORDS = new RegExp(
  `(?<![\\p{L}\\p{N}♭♯#])${NUMERAL}${QUALITY}(?:/(?:${NUMERAL}|[b#]{0,2}[1-7]))?(?!\\p{L})`,
  'gu',
);

/** A sentence with its Roman numerals in figures. */
export const decimalsIn = (sentence: string): string => sentence.replace(IN_WORDS, decimalOf);

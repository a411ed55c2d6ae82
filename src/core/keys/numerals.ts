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

/** Reads `ii7`, `V7/ii`, `#ivo7`, `I/3` in a key; null when the text is not a numeral. */
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

/** The numeral with its quality: `iiø7`, `V7`, `bVIImaj7`, `i(maj7)`; a slash bass as its degree. */
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

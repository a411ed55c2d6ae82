/** Degrees: intervals above a root, written against the major scale (`b3`, `#4`, `bb7`). */
import { alteration, type Interval, noteFromLetter, step } from './notes';

const LETTERS_BY_STEP = 'CDEFGAB';
const TENSION_OFFSET: Readonly<Record<string, string>> = { '2': '9', '4': '11', '6': '13' };

function accidentals(count: number): string {
  return count < 0 ? 'b'.repeat(-count) : '#'.repeat(count);
}

const buildDegreeName = (degree: Interval) => accidentals(alteration(degree)) + (step(degree) + 1);

const NAME_REACH = 30;
const DEGREE_NAMES = Array.from({ length: 2 * NAME_REACH + 1 }, (_, index) =>
  buildDegreeName((index - NAME_REACH) as Interval),
);

/**
 * Simple degree name: `1`, `b3`, `#4`, `bb7`.
 *
 * @example degreeName(intervalBetween(parseNote("D"), parseNote("F"))); // "b3"
 */
export const degreeName = (degree: Interval): string =>
  DEGREE_NAMES[degree + NAME_REACH] ?? buildDegreeName(degree);

/**
 * Name above the octave where the field uses one: `b9`, `#11`, `13`; chord tones stay simple.
 *
 * @example tensionName(degree('b2')); // "b9"
 */
export function tensionName(degree: Interval): string {
  const name = degreeName(degree);
  const number = TENSION_OFFSET[name.slice(-1)];
  return number === undefined ? name : name.slice(0, -1) + number;
}

const DEGREE_PATTERN = /^([b♭]{0,3}|[#♯]{0,3})(1[0-3]|[1-9])$/u;

/**
 * Reads a simple degree or a tension: `b3`, `♯4`, `b9`, `13`; null for anything else.
 *
 * @example
 * degreeName(parseDegree('b6')); // "b6"
 * parseDegree('h'); // null
 */
export function parseDegree(text: string): Interval | null {
  const match = DEGREE_PATTERN.exec(text);
  if (!match) return null;
  const [, signs = '', number = ''] = match;
  const sharps = /[b♭]/u.test(signs) ? -signs.length : signs.length;
  const letter = LETTERS_BY_STEP[(Number(number) - 1) % 7] ?? 'C';
  return noteFromLetter(letter, sharps) as number as Interval;
}

/**
 * Like {@link parseDegree} for text the program itself wrote; throws on anything else.
 *
 * @example halfSteps(degree('#4')); // 6
 */
export function degree(text: string): Interval {
  const parsed = parseDegree(text);
  if (parsed === null) throw new RangeError(`"${text}" is not a degree.`);
  return parsed;
}

/**
 * Reads several at once: `degrees('1 b3 5 b7')`.
 *
 * @example degrees('1 b3 5').map(degreeName); // ["1","b3","5"]
 */
export const degrees = (text: string): readonly Interval[] => text.split(' ').map(degree);

const ORDINALS = ['root', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'] as const;
const TENSION_ORDINALS = ['root', 'ninth', 'third', 'eleventh', 'fifth', 'thirteenth', 'seventh'];
const PERFECT_STEPS: ReadonlySet<number> = new Set([0, 3, 4]);

function spoken(degree: Interval, ordinals: readonly string[]): string {
  const ordinal = ordinals[step(degree)] ?? 'root';
  const sharps = alteration(degree);
  if (sharps === 0) return step(degree) === 6 ? 'major seventh' : ordinal;
  if (sharps === -1) return `flat ${ordinal}`;
  if (sharps === 1) return `sharp ${ordinal}`;
  if (sharps === -2) {
    return PERFECT_STEPS.has(step(degree)) ? `double flat ${ordinal}` : `diminished ${ordinal}`;
  }
  return `${sharps < 0 ? 'triple flat' : 'double sharp'} ${ordinal}`;
}

/**
 * The degree as a player says it: "root", "flat third", "major seventh", "sharp fourth".
 *
 * @example spokenDegree(degree('b3')); // "flat third"
 */
export const spokenDegree = (degree: Interval): string => spoken(degree, ORDINALS);

/** The degree as a tension is said: "flat ninth", "sharp eleventh"; chord tones stay simple. */
export const spokenTension = (degree: Interval): string => spoken(degree, TENSION_ORDINALS);

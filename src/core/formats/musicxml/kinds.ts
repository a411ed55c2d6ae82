/**
 * Chord symbols as MusicXML has them: a kind, and degrees added to it, altered or taken from it.
 * Added and altered degrees count from a dominant chord: a plain 7 is a minor seventh.
 */
import { lookUp } from '../../lists';
import type { Chord } from '../../chords/chords';
import type { Quality } from '../../chords/qualities';
import { parseQuality, quality } from '../../chords/symbols';
import { degreeName, tensionName } from '../../notes/degrees';
import { alteration, halfSteps, type Interval, step } from '../../notes/notes';

/** Kinds of MusicXML 4.0 and what they are after a root in a chord symbol. */
const KINDS: Readonly<Record<string, string>> = {
  major: '',
  minor: 'm',
  augmented: 'aug',
  diminished: 'dim',
  dominant: '7',
  'major-seventh': 'maj7',
  'minor-seventh': 'm7',
  'diminished-seventh': 'dim7',
  'augmented-seventh': '7#5',
  'half-diminished': 'm7b5',
  'major-minor': 'm(maj7)',
  'major-sixth': '6',
  'minor-sixth': 'm6',
  'dominant-ninth': '9',
  'major-ninth': 'maj9',
  'minor-ninth': 'm9',
  'dominant-11th': '11',
  'major-11th': 'maj11',
  'minor-11th': 'm11',
  'dominant-13th': '13',
  'major-13th': 'maj13',
  'minor-13th': 'm13',
  'suspended-second': 'sus2',
  'suspended-fourth': 'sus4',
  power: '5',
};

/** A `degree` element of a harmony: what is added, altered or left out. */
export interface KindDegree {
  readonly value: number;
  readonly alter: number;
  readonly type: 'add' | 'alter' | 'subtract';
}

/** A quality as MusicXML says it: a kind and its degrees. */
export interface Kind {
  readonly kind: string;
  readonly degrees: readonly KindDegree[];
}

const sign = (alter: number) => (alter < 0 ? 'b'.repeat(-alter) : '#'.repeat(alter));

/** Adding a seventh, and then a ninth or more, to a triad or a sus chord makes a plain symbol. */
function withSeventh(
  suffix: string,
  added: readonly KindDegree[],
): [string, readonly KindDegree[]] {
  const seventh = added.find(({ value }) => value === 7);
  if (!seventh || !['', 'm', 'sus2', 'sus4', 'aug', 'dim'].includes(suffix)) return [suffix, added];
  const name = seventh.alter > 0 ? 'maj7' : '7';
  const rest = added.filter((degree) => degree !== seventh);
  if (suffix === 'm') return [seventh.alter > 0 ? 'm(maj7)' : 'm7', rest];
  if (suffix === 'aug') return [`${name}#5`, rest];
  if (suffix === 'dim') return [seventh.alter < 0 ? 'dim7' : 'm7b5', rest];
  return [name + suffix, rest];
}

/** What follows the root for a kind with its degrees; null where there is no such chord symbol. */
export function suffixOf({ kind, degrees }: Kind): string | null {
  const plain = lookUp(KINDS, kind);
  if (plain === undefined) return null;
  const [base, rest] = withSeventh(
    plain,
    degrees.filter(({ type }) => type === 'add'),
  );
  const others = degrees.filter(({ type }) => type !== 'add');
  const parts = [...others, ...rest].map(({ value, alter, type }) => {
    if (type === 'subtract') return `no${value}`;
    return alter === 0 ? `add${value}` : sign(alter) + value;
  });
  const altered = parts.length > 0 && parts.every((part) => /^[b#]/u.test(part));
  const bracketed = `${base}(${parts.join(',')})`;
  const plainly = base + parts.join('');
  // One alteration behind a number needs no brackets: F7b9, but F(b5).
  const brackets = altered && (parts.length > 1 || !/\d$/u.test(base));
  const candidates = brackets ? [bracketed, plainly] : [plainly];
  return candidates.find((candidate) => parseQuality(candidate) !== null) ?? null;
}

const soundsOf = ({ degrees }: Quality): ReadonlySet<number> => new Set(degrees.map(halfSteps));

/** A degree counted as MusicXML counts added ones: from a dominant chord, above the octave. */
function asAdded(degree: Interval, type: 'add' | 'alter'): KindDegree {
  const number = step(degree) + 1;
  const above = tensionName(degree) !== degreeName(degree);
  const value = type === 'add' && above ? number + 7 : number;
  return { value, alter: alteration(degree) + (number === 7 ? 1 : 0), type };
}

function difference(
  kind: string,
  suffix: string,
  wanted: Quality,
): Kind & { readonly cost: number } {
  const base = quality(suffix);
  const have = soundsOf(base);
  const want = soundsOf(wanted);
  const missing = base.degrees.filter((degree) => !want.has(halfSteps(degree)));
  const extra = wanted.degrees.filter((degree) => !have.has(halfSteps(degree)));
  const degrees: KindDegree[] = [];
  const fifth = missing.find((degree) => step(degree) === 4);
  for (const degree of extra) {
    const alters = step(degree) === 4 && fifth !== undefined;
    degrees.push(asAdded(degree, alters ? 'alter' : 'add'));
  }
  const altered = extra.some((degree) => step(degree) === 4);
  for (const degree of missing) {
    if (degree === fifth && altered) continue;
    degrees.push({ value: step(degree) + 1, alter: 0, type: 'subtract' });
  }
  // Taking notes away is the least readable way to say a chord.
  const cost = extra.length + 2 * (missing.length - (fifth !== undefined && altered ? 1 : 0));
  return { kind, degrees, cost };
}

/** The kind nearest to a quality, and what it lacks of it. */
export function kindOf(wanted: Quality): Kind {
  let best: (Kind & { readonly cost: number }) | null = null;
  for (const [kind, suffix] of Object.entries(KINDS)) {
    const found = difference(kind, suffix, wanted);
    if (best === null || found.cost < best.cost) best = found;
  }
  return best ?? { kind: 'other', degrees: [] };
}

/** Whether two chords are of the same tones above their roots. */
export const sameSound = (a: Chord, b: Chord): boolean => {
  const [first, second] = [soundsOf(a.quality), soundsOf(b.quality)];
  return first.size === second.size && [...first].every((size) => second.has(size));
};

/** Chord qualities: the tones above a root, what they are called, and what defines them. */
import { degree, degreeName, degrees } from '../notes/degrees';
import { halfSteps, type Interval, step } from '../notes/notes';

/** What a chord does in harmony, coarser than its quality. */
type ChordFamily =
  | 'major'
  | 'minor'
  | 'dominant'
  | 'half-diminished'
  | 'diminished'
  | 'augmented'
  | 'suspended'
  | 'power';

/**
 * A chord without its root. `degrees` are all chord tones the symbol names, in thirds from the
 * root; `core` the triad with its seventh or sixth; `guideTones` the tones that tell the ear which
 * chord it is; `tensions` the further degrees it takes without a clash.
 */
export interface Quality {
  readonly name: string;
  readonly family: ChordFamily;
  readonly degrees: readonly Interval[];
  readonly core: readonly Interval[];
  readonly guideTones: readonly Interval[];
  readonly tensions: readonly Interval[];
  /** Whether the symbol asks for every tension altered and leaves the fifth open: `7alt`. */
  readonly altered: boolean;
}

/** What a chord symbol says, part by part, before it becomes a quality. */
export interface QualityParts {
  triad: 'major' | 'minor' | 'diminished' | 'augmented' | 'power';
  seventh: 'none' | 'minor' | 'major' | 'diminished' | 'sixth';
  extension: 7 | 9 | 11 | 13;
  suspended: readonly ('2' | '4')[];
  altered: boolean;
  /** Alterations and additions by degree name: `b5`, `#9`, `13`. */
  alterations: readonly string[];
  additions: readonly string[];
  omissions: readonly ('1' | '3' | '5')[];
}

const TRIADS: Readonly<Record<QualityParts['triad'], readonly string[]>> = {
  major: ['3', '5'],
  minor: ['b3', '5'],
  diminished: ['b3', 'b5'],
  augmented: ['3', '#5'],
  power: ['5'],
};

const SEVENTHS: Readonly<Record<QualityParts['seventh'], string | null>> = {
  none: null,
  minor: 'b7',
  major: '7',
  diminished: 'bb7',
  sixth: '6',
};

/** Tensions a whole step above a chord tone, and over a dominant the altered ones. */
const TENSIONS: Readonly<Record<ChordFamily, string>> = {
  major: '9 #11 13',
  minor: '9 11 13',
  dominant: 'b9 9 #9 #11 b13 13',
  'half-diminished': '9 11 b13',
  diminished: '9 11 b13 7',
  augmented: '9 #11',
  suspended: '9 13',
  power: '9',
};
const ALTERED_TENSIONS = 'b9 #9 #11 b13';

function family(parts: QualityParts, tones: ReadonlySet<string>): ChordFamily {
  if (parts.triad === 'power') return 'power';
  if (parts.suspended.length > 0) return 'suspended';
  if (parts.altered) return 'dominant';
  const flatSeventh = tones.has('b7');
  if (tones.has('b3')) {
    if (tones.has('b5') && !tones.has('5')) {
      return flatSeventh ? 'half-diminished' : 'diminished';
    }
    return 'minor';
  }
  if (flatSeventh) return 'dominant';
  return tones.has('#5') && !tones.has('5') ? 'augmented' : 'major';
}

/** Third and seventh; in a triad the third and an altered fifth; in a sus chord its fourth or second. */
function guideTones(core: readonly string[], suspended: readonly string[]): readonly string[] {
  const third = core.filter((tone) => tone === '3' || tone === 'b3');
  const color = third.length > 0 ? third : suspended;
  const seventh = core.filter((tone) => ['b7', '7', 'bb7', '6'].includes(tone));
  const fifth = seventh.length === 0 ? core.filter((tone) => tone === 'b5' || tone === '#5') : [];
  return [...color, ...fifth, ...seventh];
}

const stackOrder = (tone: string, core: ReadonlySet<string>): number => {
  const number = step(degree(tone)) + 1;
  const above = number % 2 === 0 && !core.has(tone);
  return above ? number + 7 : number;
};

/** The plain alteration of the fifth replaces it; `b13` and `#11` leave it. */
const REPLACES: Readonly<Record<string, string>> = { b5: '5', '#5': '5' };

function tonesOf(parts: QualityParts): { readonly core: string[]; readonly upper: string[] } {
  let core: string[] = parts.altered ? ['1', '3'] : ['1', ...TRIADS[parts.triad]];
  if (parts.suspended.length > 0) {
    core = [...core.filter((tone) => tone !== '3' && tone !== 'b3'), ...parts.suspended];
  }
  const seventh = SEVENTHS[parts.seventh];
  if (seventh !== null) core.push(seventh);
  const upper: string[] = [];
  if (parts.extension >= 9) upper.push('9');
  // A thirteenth over a major third leaves out the natural eleventh, which clashes with it.
  if (parts.extension === 11 || (parts.extension === 13 && core.includes('b3'))) upper.push('11');
  if (parts.extension === 13) upper.push('13');
  for (const alteration of parts.alterations) {
    const replaced = REPLACES[alteration];
    if (replaced !== undefined) {
      core = core.filter((tone) => tone !== replaced);
      if (!core.includes(alteration)) core.push(alteration);
    } else {
      const natural = alteration.replace(/^[b#]/u, '');
      const index = upper.indexOf(natural);
      if (index >= 0 && !parts.additions.includes(natural)) upper.splice(index, 1);
      upper.push(alteration);
    }
  }
  upper.push(...parts.additions.filter((tone) => !upper.includes(tone)));
  const kept = (tone: string) =>
    !parts.omissions.some((omitted) => tone.replace(/^[b#]/u, '') === omitted);
  return { core: core.filter(kept), upper: upper.filter(kept) };
}

const SUFFIXES: Readonly<Record<string, string>> = {
  'major none': '',
  'major sixth': '6',
  'major minor': '7',
  'major major': 'maj7',
  'minor none': 'm',
  'minor sixth': 'm6',
  'minor minor': 'm7',
  'minor major': 'm(maj7)',
  'diminished none': 'dim',
  'diminished minor': 'm7b5',
  'diminished diminished': 'dim7',
  'diminished major': 'dim(maj7)',
  'diminished sixth': 'dim7',
  'augmented none': 'aug',
  'augmented minor': '7#5',
  'augmented major': 'maj7#5',
  'augmented sixth': '6#5',
  'power none': '5',
};

function nameOf(parts: QualityParts): string {
  if (parts.altered) return '7alt';
  let name = SUFFIXES[`${parts.triad} ${parts.seventh}`] ?? '';
  if (parts.extension > 7) name = name.replace('7', String(parts.extension));
  const additions = [...parts.additions];
  if (parts.seventh === 'sixth' && additions.includes('9')) {
    additions.splice(additions.indexOf('9'), 1);
    name = name.replace('6', '69');
  }
  const marks = parts.alterations.length > 1 ? `(${parts.alterations.join(',')})` : '';
  const single = parts.alterations.length === 1 ? (parts.alterations[0] ?? '') : '';
  const needsParentheses = single !== '' && (name === '' || name === 'm');
  return (
    name +
    (parts.suspended.length > 0 ? `sus${parts.suspended.join('')}` : '') +
    (needsParentheses ? `(${single})` : single) +
    marks +
    additions.map((tone) => `add${tone}`).join('') +
    parts.omissions.map((tone) => `no${tone}`).join('')
  );
}

/** Builds a quality from the parts of a symbol. */
export function buildQuality(parts: QualityParts): Quality {
  const { core, upper } = tonesOf(parts);
  const coreSet = new Set(core);
  const inThirds = (a: string, b: string) => stackOrder(a, coreSet) - stackOrder(b, coreSet);
  const ordered = [...new Set([...core, ...upper])].sort(inThirds).map(degree);
  const tones = new Set(core);
  const kind = family(parts, tones);
  const held = new Set(ordered.map(degreeName));
  const tensions = degrees(parts.altered ? ALTERED_TENSIONS : TENSIONS[kind]).filter(
    (tension) => !held.has(degreeName(tension)),
  );
  return {
    name: nameOf(parts),
    family: kind,
    degrees: ordered,
    core: [...core].sort(inThirds).map(degree),
    guideTones: guideTones(core, parts.suspended).map(degree),
    tensions: kind === 'major' && tones.has('#5') ? degrees('9 #11') : tensions,
    altered: parts.altered,
  };
}

/** Whether a degree sounds as one of the quality's tones, whatever its spelling. */
export const sounds = (quality: Quality, interval: Interval): boolean =>
  quality.degrees.some((tone) => halfSteps(tone) === halfSteps(interval));

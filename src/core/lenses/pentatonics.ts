/** The pentatonic lenses: the key's one scale, the chord's own, and those borrowed from other roots. */
import { type Chord, chordName } from '../chords/chords';
import {
  type Collection,
  collection,
  collectionName,
  relativeOf,
} from '../collections/collections';
import { isMinorKey, type Key } from '../keys/keys';
import { degree, degreeName } from '../notes/degrees';
import { type Interval, simpleRoot, transpose } from '../notes/notes';
import type { LensAnswer, Suggestion } from './lens';
import { collectionMaterial } from './material';
import { modeFor } from './modes';
import { ownPentatonic } from '../collections/pentatonics';

const SCALE_OF_MODE: Readonly<Record<Key['mode'], string>> = {
  major: 'ionian',
  minor: 'aeolian',
  dorian: 'dorian',
  phrygian: 'phrygian',
  lydian: 'lydian',
  mixolydian: 'mixolydian',
  locrian: 'locrian',
};

/** The single scales of a key, cheapest first. */
export function keyCollections(key: Key, blues: boolean): readonly Collection[] {
  const minor = isMinorKey(key);
  const names =
    blues && !minor
      ? ['minor pentatonic', 'minor blues', 'major blues', 'blended blues', 'mixolydian']
      : minor
        ? ['minor pentatonic', 'minor blues', SCALE_OF_MODE[key.mode]]
        : ['major pentatonic', 'major blues', SCALE_OF_MODE[key.mode]];
  const leading = key.mode === 'minor' ? ['harmonic minor'] : [];
  return [...names, ...leading].map((name) => collection(key.tonic, name));
}

/** One scale of the key over all its chords. */
export const keyScaleLens: LensAnswer = (context) => {
  const { key, blues, singles, settings } = context;
  if (key === null && settings.includes('vamp')) {
    // One chord is its own key.
    return [
      {
        lens: 'key-scale',
        material: collectionMaterial(modeFor(context)),
        why: 'one scale for the whole chart',
        common: true,
      },
    ];
  }
  if (key === null) {
    return singles.map((material) => ({
      lens: 'key-scale',
      material,
      why: 'no key holds this chart; this one scale says most of it',
      common: false,
    }));
  }
  return keyCollections(key, blues).map((one, index): Suggestion => {
    const relative = index === 0 ? relativeOf(one) : null;
    const also = relative ? `, also ${collectionName(relative)}` : '';
    return {
      lens: 'key-scale',
      material: collectionMaterial(one),
      why: `one scale for the whole chart${also}`,
      common: index === 0,
    };
  });
};

/** The pentatonic of the chord’s own root. */
export const ownPentatonicLens: LensAnswer = (context) => {
  const own = ownPentatonic(context.chord);
  if (!own) return [];
  const material = collectionMaterial(own);
  const { mask } = collectionMaterial(modeFor(context));
  const relative = relativeOf(own);
  const also = relative ? `, also ${collectionName(relative)}` : '';
  return [
    {
      lens: 'own-pentatonic',
      material,
      why: `the chord’s own five notes${also}`,
      // A plain V in minor has another sixth and second than its own pentatonic.
      common: (material.mask & ~mask) === 0,
    },
  ];
};

/** Pentatonics computed from every root over every chord. */
const BORROWED_KINDS = [
  'minor pentatonic',
  'minor sixth pentatonic',
  'dominant pentatonic',
  'major flat-sixth pentatonic',
] as const;

/** Degrees a borrowed pentatonic may begin on, spelled as players count them. */
const ROOTS = '1 b2 2 b3 3 4 b5 5 b6 6 b7 7'.split(' ').map(degree);
const ROOTS_OVER_MAJOR = ROOTS.map((root) => (root === degree('b5') ? degree('#4') : root));

const KINDS: ReadonlySet<string> = new Set(BORROWED_KINDS);

/** The blues scale a pentatonic becomes with the flat fifth. */
const WITH_FLAT_FIFTH: Readonly<Record<string, string>> = {
  'minor pentatonic': 'minor blues',
  'minor sixth pentatonic': 'minor sixth blues',
};

/** A pentatonic with the flat fifth, as a blues scale; null where there is no such one. */
export function withFlatFifth({ root, kind }: Collection): Collection | null {
  const name = WITH_FLAT_FIFTH[kind.name];
  return name === undefined ? null : collection(root, name);
}

/** A borrowed pentatonic by its root's degree over the chord. */
export interface Borrowed {
  readonly relation: Interval;
  readonly kind: string;
}

const on = (kind: string, roots: string): readonly Borrowed[] =>
  roots.split(' ').map((root) => ({ relation: degree(root), kind }));

/** Those in common use, by what the chord is. */
const OVER_MINOR = on('minor pentatonic', '1 2 5');
const OVER_MAJOR = on('minor pentatonic', '3 6 7');
const OVER_DOMINANT = on('minor pentatonic', '6 2 5');
const OVER_ALTERED = on('minor pentatonic', 'b3 4 b7');
const OVER_HALF_DIMINISHED = [
  ...on('minor pentatonic', '4'),
  ...on('minor sixth pentatonic', 'b3 4'),
  ...on('major flat-third pentatonic', 'b3'),
];
const OVER_MELODIC_MINOR = [...on('minor sixth pentatonic', '1'), ...on('minor pentatonic', '2')];
const OVER_SUSPENDED = on('minor pentatonic', '5 2');

/** A dominant whose own alterations, or whose fall into a minor chord, bend its tensions. */
export const isAltered = ({ quality }: Chord): boolean =>
  quality.family === 'dominant' &&
  (quality.altered ||
    quality.degrees.some((tone) => ['b2', '#2', 'b6', '#5'].includes(degreeName(tone))));

/** A minor chord whose own sixth or seventh is the melodic minor's. */
function isMelodicMinor({ quality: { degrees } }: Chord): boolean {
  const has = (name: string) => degrees.includes(degree(name));
  return has('7') || (has('6') && !has('b7'));
}

/** The borrowed pentatonics in common use over a chord. */
function commonBorrowed(chord: Chord): readonly Borrowed[] {
  switch (chord.quality.family) {
    case 'minor':
      return isMelodicMinor(chord) ? OVER_MELODIC_MINOR : OVER_MINOR;
    case 'major':
      return OVER_MAJOR;
    case 'dominant':
      return isAltered(chord) ? OVER_ALTERED : OVER_DOMINANT;
    case 'half-diminished':
      return OVER_HALF_DIMINISHED;
    case 'suspended':
      return OVER_SUSPENDED;
    default:
      return [];
  }
}

/** The same, and those of the altered dominant where a dominant may be altered. */
export const borrowedInChains = (chord: Chord, falls: boolean): readonly Borrowed[] => [
  ...commonBorrowed(chord),
  ...(chord.quality.family === 'dominant' && falls && !isAltered(chord) ? OVER_ALTERED : []),
];

/** On a simple root: nobody thinks of a B double flat minor, nor of an F flat minor. */
export const borrowedCollection = ({ root }: Chord, { relation, kind }: Borrowed): Collection =>
  collection(simpleRoot(transpose(root, relation), root), kind);

const everyKind = (roots: readonly Interval[]): readonly Borrowed[] =>
  BORROWED_KINDS.flatMap((kind) => roots.map((relation) => ({ relation, kind })));
const ALL = everyKind(ROOTS);
const ALL_OVER_MAJOR = everyKind(ROOTS_OVER_MAJOR);

/** Every borrowed pentatonic over a chord, kind by kind, and the further ones in common use. */
export function borrowedOver(chord: Chord): readonly Borrowed[] {
  const sharp = chord.quality.family === 'major' || chord.quality.family === 'augmented';
  const further = commonBorrowed(chord).filter(({ kind }) => !KINDS.has(kind));
  return [...(sharp ? ALL_OVER_MAJOR : ALL), ...further];
}

/** Pentatonics on other degrees of the chord. */
export const borrowedLens: LensAnswer = (context) => {
  const { chord } = context;
  // A major triad that takes mixolydian has no major seventh to colour: it is played as a dominant.
  const flat = chord.quality.family === 'major' && modeFor(context).kind.name === 'mixolydian';
  const common = flat ? OVER_DOMINANT : commonBorrowed(chord);
  return borrowedOver(chord).map((one): Suggestion => {
    const usual = common.some(
      ({ relation, kind }) => relation === one.relation && kind === one.kind,
    );
    const from = one.relation === 0 ? 'its root' : `its ${degreeName(one.relation)}`;
    return {
      lens: 'borrowed-pentatonic',
      material: collectionMaterial(borrowedCollection(chord, one)),
      why: usual
        ? `in common use over ${chordName({ ...chord, bass: null })}, from ${from}`
        : `from ${from}`,
      common: usual,
    };
  });
};

/** Collections of notes — scales, modes, pentatonics — as a kind and a root. */
import { at } from '../lists';
import { degrees as readDegrees } from '../notes/degrees';
import {
  addIntervals,
  alteration,
  ENHARMONIC,
  halfSteps,
  type Interval,
  intervalBetween,
  invertInterval,
  type Note,
  noteName,
  parseNote,
  pitchClass,
  transpose,
} from '../notes/notes';
import { COLLECTION_TABLE, type CollectionFamily } from './table';

/** A collection without its root. */
interface CollectionKind {
  readonly name: string;
  readonly family: CollectionFamily;
  readonly degrees: readonly Interval[];
  readonly aliases: readonly string[];
  /** The kind this is a mode of, and the degree of the parent on which it begins. */
  readonly parent: { readonly name: string; readonly from: Interval } | null;
}

/** Notes that are played as one: a kind of scale, mode or pentatonic on a root. */
export interface Collection {
  readonly root: Note;
  readonly kind: CollectionKind;
}

/** The families whose members are modes of one scale. */
export const MODAL_FAMILIES: ReadonlySet<CollectionFamily> = new Set([
  'major modes',
  'melodic minor modes',
  'harmonic minor modes',
  'harmonic major modes',
]);

/** Pairs of major and minor that players hold as one: the same notes from another root. */
const RELATIVES: readonly (readonly [string, string])[] = [
  ['ionian', 'aeolian'],
  ['major pentatonic', 'minor pentatonic'],
  ['dominant pentatonic', 'minor sixth pentatonic'],
  ['major blues', 'minor blues'],
  ['half-whole diminished', 'whole-half diminished'],
];

function parentOf(family: CollectionFamily, index: number) {
  const first = at(COLLECTION_TABLE[family], 0);
  if (!MODAL_FAMILIES.has(family) || index === 0) return null;
  return { name: first[0], from: at(readDegrees(first[1]), index) };
}

/** All kinds, in the order of the table. */
export const COLLECTION_KINDS: readonly CollectionKind[] = Object.entries(COLLECTION_TABLE).flatMap(
  ([family, rows]) =>
    rows.map(([name, degrees, ...aliases], index) => ({
      name,
      family: family as CollectionFamily,
      degrees: readDegrees(degrees),
      aliases,
      parent: parentOf(family as CollectionFamily, index),
    })),
);

const BY_NAME = new Map(
  // Earlier names win, and a proper name wins over an alias.
  [...COLLECTION_KINDS]
    .reverse()
    .flatMap((kind) => kind.aliases.map((alias): [string, CollectionKind] => [alias, kind]))
    .concat(COLLECTION_KINDS.map((kind) => [kind.name, kind])),
);

/** Finds a kind by name or alias, in any letter case; null when there is none. */
export const findCollectionKind = (name: string): CollectionKind | null =>
  BY_NAME.get(name) ??
  BY_NAME.get(
    name
      .trim()
      .toLowerCase()
      .replace(/♭/gu, 'b')
      .replace(/♯/gu, '#')
      .replace(/\s+/gu, ' ')
      .replace(/ (?:scale|mode)$/u, ''),
  ) ??
  null;

/** Like {@link findCollectionKind} for a name the program itself wrote; throws on anything else. */
function collectionKind(name: string): CollectionKind {
  const kind = findCollectionKind(name);
  if (!kind) throw new RangeError(`"${name}" is not a collection.`);
  return kind;
}

/**
 * `collection(note('Eb'), 'major pentatonic')`.
 *
 * @example collectionName(collection(note('A'), 'minor pentatonic')); // "A minor pentatonic"
 */
export const collection = (root: Note, kindName: string): Collection => ({
  root,
  kind: collectionKind(kindName),
});

/**
 * Reads `Eb major pentatonic`; null when root or name is unknown.
 *
 * @example
 * collectionNotes(parseCollection('A minor pentatonic')).map(noteName); // ["A","C","D","E","G"]
 * parseCollection('A nothing'); // null
 */
export function parseCollection(text: string): Collection | null {
  const trimmed = text.trim();
  const space = trimmed.search(/\s/u);
  const root = parseNote(space < 0 ? trimmed : trimmed.slice(0, space));
  const kind = space < 0 ? null : findCollectionKind(trimmed.slice(space + 1));
  return root === null || kind === null ? null : { root, kind };
}

/** A collection in words, as “F lydian dominant”. */
export const collectionName = (collection: Collection): string =>
  `${noteName(collection.root)} ${collection.kind.name}`;

/**
 * Its notes from the root up.
 *
 * @example collectionNotes(collection(note('D'), 'dorian')).map(noteName); // ["D","E","F","G","A","B","C"]
 */
export const collectionNotes = ({ root, kind }: Collection): readonly Note[] =>
  kind.degrees.map((degree) => transpose(root, degree));

/** The set of pitch classes as a 12-bit mask, bit 0 = C. */
export const pitchMask = (notes: readonly Note[]): number =>
  notes.reduce((mask, note) => mask | (1 << pitchClass(note)), 0);

/**
 * The same kind an interval higher.
 *
 * @example collectionName(transposeCollection(collection(note('C'), 'lydian'), degree('2'))); // "D lydian"
 */
export const transposeCollection = (collection: Collection, interval: Interval): Collection => ({
  root: transpose(collection.root, interval),
  kind: collection.kind,
});

/** The scale this is a mode of, with its root; null when it is its own parent. */
export function parentCollection({ root, kind }: Collection): Collection | null {
  if (kind.parent === null) return null;
  return collection(transpose(root, invertInterval(kind.parent.from)), kind.parent.name);
}

const kindMask = (kind: CollectionKind, from: Interval): number =>
  kind.degrees.reduce(
    (mask, degree) => mask | (1 << halfSteps(addIntervals(degree, invertInterval(from)))),
    0,
  );

const UNISON = 0 as Interval;
const KIND_BY_MASK = new Map(
  [...COLLECTION_KINDS]
    .reverse()
    .map((kind): [number, CollectionKind] => [kindMask(kind, UNISON), kind]),
);

/**
 * A collection begun on each of its notes; those without a name of their own are left out.
 *
 * @example modesOf(collection(note('C'), 'ionian')).map(collectionName).slice(0, 2); // ["C ionian","D dorian"]
 */
export function modesOf({ root, kind }: Collection): readonly Collection[] {
  return kind.degrees.flatMap((from) => {
    const mode = KIND_BY_MASK.get(kindMask(kind, from));
    return mode ? [{ root: transpose(root, from), kind: mode }] : [];
  });
}

/**
 * The same notes as major or minor: major pentatonic and its minor a minor third below.
 *
 * @example collectionName(relativeOf(collection(note('A'), 'minor pentatonic'))); // "C major pentatonic"
 */
export function relativeOf(collection: Collection): Collection | null {
  const name = collection.kind.name;
  const pair = RELATIVES.find((names) => names.includes(name));
  const wanted = pair?.find((other) => other !== name);
  return modesOf(collection).find((mode) => mode.kind.name === wanted) ?? null;
}

/** Accidentals to read; a double one weighs as much as a whole signature. */
function burden(collection: Collection): number {
  const sharps = collectionNotes(collection).map((note) => Math.abs(alteration(note)));
  const doubles = sharps.filter((count) => count > 1).length;
  return sharps.reduce((sum, count) => sum + count, 0) + 7 * doubles;
}

const MOST_ACCIDENTALS = 6;

/**
 * The enharmonic name to read instead, where the parent scale has more than six accidentals or a
 * double one: C flat melodic minor is easier as B melodic minor. Null when nothing is easier.
 */
export function easierName(collection: Collection): Collection | null {
  const parent = parentCollection(collection) ?? collection;
  if (burden(parent) <= MOST_ACCIDENTALS) return null;
  const direction = parent.root > 0 ? -ENHARMONIC : ENHARMONIC;
  const other = { root: transpose(parent.root, direction as Interval), kind: parent.kind };
  return burden(other) < burden(parent) ? other : null;
}

/**
 * The degree of `note` from the collection's root, or null when it is not in it.
 *
 * @example degreeName(degreeIn(collection(note('D'), 'dorian'), note('B'))); // "6"
 */
export function degreeIn({ root, kind }: Collection, note: Note): Interval | null {
  const size = halfSteps(intervalBetween(root, note));
  return kind.degrees.find((degree) => halfSteps(degree) === size) ?? null;
}

/** Every collection, on every root among the twelve, that holds all the notes; smallest first. */
export function collectionsHolding(
  notes: readonly Note[],
  root: Note | null = null,
): readonly Collection[] {
  const wanted = pitchMask(notes);
  const roots = root === null ? rootsFor(notes) : [root];
  return roots
    .flatMap((candidate) => COLLECTION_KINDS.map((kind) => ({ root: candidate, kind })))
    .filter((candidate) => (wanted & ~pitchMask(collectionNotes(candidate))) === 0)
    .sort((a, b) => a.kind.degrees.length - b.kind.degrees.length);
}

/** The given notes as roots first, then the rest of the twelve spelled near them. */
function rootsFor(notes: readonly Note[]): readonly Note[] {
  const centre = Math.round(notes.reduce((sum, note) => sum + note, 0) / notes.length);
  const nearby = Array.from({ length: 12 }, (_, index) => (centre - 5 + index) as Note);
  const given = new Set(notes.map(pitchClass));
  return [...notes, ...nearby.filter((note) => !given.has(pitchClass(note)))];
}

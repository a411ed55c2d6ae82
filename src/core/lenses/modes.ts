/**
 * The modes to play over a chord by what it does in its key: the usual first choice of chord-scale
 * teaching and its alternatives, after Nettles and Graf, "The Chord Scale Theory and Jazz Harmony"
 * (1997), and for the melodic minor Levine, "The Jazz Theory Book" (1995).
 */
import { type Chart, nextChange, type PlayedChord, writtenKeyAt } from '../chart/form';
import { type Chord, chordName, chordNotes } from '../chords/chords';
import {
  type Collection,
  collection,
  COLLECTION_KINDS,
  collectionName,
  collectionNotes,
  easierName,
  modesOf,
  parentCollection,
  pitchMask,
} from '../collections/collections';
import { isMinorKey, type Key, keyScale } from '../harmony/keys';
import { FALLING_FIFTH, isMinorChord, rootMotion } from '../harmony/changes';
import { isDiatonic } from '../harmony/membership';
import type { Reading } from '../harmony/reading';
import { degree, degreeName } from '../notes/degrees';
import { halfSteps, intervalBetween, noteName, pitchClass, transpose } from '../notes/notes';

export interface ModeContext {
  readonly chord: Chord;
  /** The chord it goes to; null where nothing follows. */
  readonly next: Chord | null;
  readonly key: Key | null;
  readonly blues: boolean;
  /** Whether the chart's other chords hold the key's natural sixth rather than its flat one. */
  readonly naturalSixth?: boolean;
}

/** A mode with the reason it is offered. */
export interface ModeChoice {
  readonly collection: Collection;
  readonly why: string;
}

/** Qualities whose own alterations choose the mode, whatever the key. */
const BY_QUALITY: Readonly<Record<string, string>> = {
  '7alt': 'altered',
  '7#9': 'altered',
  '7(b9,#9)': 'altered',
  '7#5': 'whole tone',
  '9#5': 'whole tone',
  aug: 'lydian augmented',
  '7b5': 'lydian dominant',
  '9b5': 'lydian dominant',
  '7#11': 'lydian dominant',
  '9#11': 'lydian dominant',
  '13#11': 'lydian dominant',
  '7b13': 'mixolydian b6',
  '9b13': 'mixolydian b6',
  '7(b9,b13)': 'phrygian dominant',
  '7b9': 'phrygian dominant',
  '13b9': 'half-whole diminished',
  '7(b9,#11)': 'half-whole diminished',
  'maj7#11': 'lydian',
  'maj9#11': 'lydian',
  'maj7#5': 'lydian augmented',
  m6: 'melodic minor',
  m69: 'melodic minor',
  'm(maj7)': 'melodic minor',
  'm(maj9)': 'melodic minor',
  dim: 'locrian natural 2',
  dim7: 'whole-half diminished',
};

/** The major scale's modes over minor chords, by half steps above the tonic of a major key. */
const MINOR_IN_MAJOR: Readonly<Record<number, string>> = {
  2: 'dorian',
  4: 'phrygian',
  9: 'aeolian',
};

function dominantMode({ chord, next, key, blues }: ModeContext): string {
  if (blues) return 'mixolydian';
  if (next && rootMotion(chord, next) === FALLING_FIFTH) {
    return isMinorChord(next) ? 'phrygian dominant' : 'mixolydian';
  }
  const above = key === null ? null : halfSteps(intervalBetween(key.tonic, chord.root));
  if (above === 7) return key && isMinorKey(key) ? 'phrygian dominant' : 'mixolydian';
  if (next === null && key === null) return 'mixolydian';
  return 'lydian dominant';
}

function majorMode({ chord, next, key }: ModeContext): string {
  if (key === null) return 'ionian';
  const above = halfSteps(intervalBetween(key.tonic, chord.root));
  const plain = chord.quality.core.length === 3;
  if (above === 0) return 'ionian';
  // The relative major of a minor key rests as a tonic does.
  if (above === 3 && isMinorKey(key)) return 'ionian';
  if (above === 7) return plain ? 'mixolydian' : 'ionian';
  if (plain && next && rootMotion(chord, next) === FALLING_FIFTH) return 'mixolydian';
  return 'lydian';
}

function minorMode({ chord, key, naturalSixth = false }: ModeContext): string {
  if (key === null) return 'dorian';
  const above = halfSteps(intervalBetween(key.tonic, chord.root));
  if (!isMinorKey(key)) return MINOR_IN_MAJOR[above] ?? 'dorian';
  if (above === 0) return naturalSixth ? 'dorian' : 'aeolian';
  return above === 7 ? 'phrygian' : 'dorian';
}

/** In a modal key a chord at home takes the key's own notes from its root. */
function modalMode(chord: Chord, key: Key): Collection | null {
  if (key.mode === 'major' || key.mode === 'minor' || !isDiatonic(chord, key)) return null;
  const notes = keyScale(key).map((one) => transpose(key.tonic, one));
  const mask = pitchMask(notes);
  return (
    modesOf(collection(chord.root, 'ionian'))
      .map(({ kind }) => ({ root: chord.root, kind }))
      .find((mode) => pitchMask(collectionNotes(mode)) === mask) ?? null
  );
}

function usualMode(context: ModeContext): Collection {
  const { chord, key } = context;
  const own = BY_QUALITY[chord.quality.name];
  const on = (name: string) => collection(chord.root, name);
  if (own !== undefined) return on(own);
  const modal = key ? modalMode(chord, key) : null;
  if (modal) return modal;
  switch (chord.quality.family) {
    case 'dominant':
      return on(dominantMode(context));
    case 'half-diminished':
      return on('locrian natural 2');
    case 'diminished':
      return on('whole-half diminished');
    case 'minor':
      return on(minorMode(context));
    case 'suspended':
      return on(chord.quality.core.map(degreeName).includes('7') ? 'lydian' : 'mixolydian');
    case 'augmented':
      return on('lydian augmented');
    default:
      return on(majorMode(context));
  }
}

const holdsAll = (mode: Collection, chord: Chord): boolean =>
  (pitchMask(chordNotes(chord)) & ~pitchMask(collectionNotes(mode))) === 0;

const MODAL_KINDS = COLLECTION_KINDS.filter(
  ({ family }) => family.endsWith('modes') || family === 'symmetric',
);

/** Notes of a mode a half step above a chord tone. */
function rubs(mode: Collection, chord: Chord): number {
  const tones = new Set(chordNotes(chord).map(pitchClass));
  return collectionNotes(mode).filter(
    (note) => !tones.has(pitchClass(note)) && tones.has((pitchClass(note) + 11) % 12),
  ).length;
}

/**
 * One seven-note collection (eight or six where the chord is symmetric) for a chord. Where the
 * usual one lacks a tone the symbol names, the one that holds them all and rubs the least.
 */
export function modeFor(context: ModeContext): Collection {
  const { chord } = context;
  const usual = usualMode(context);
  // An altered scale holds no fifth, and is meant all the same.
  if (usual.kind.name === 'altered' || holdsAll(usual, chord)) return usual;
  return MODAL_KINDS.filter(({ name }) => name !== 'chromatic')
    .map((kind): Collection => ({ root: chord.root, kind }))
    .filter((mode) => holdsAll(mode, chord))
    .reduce(
      (best, mode) =>
        !holdsAll(best, chord) || rubs(mode, chord) < rubs(best, chord) ? mode : best,
      usual,
    );
}

/** What speaks for a mode, by its name, for the reason shown beside it. */
const WHY: Readonly<Record<string, string>> = {
  ionian: 'the major scale of a chord at rest',
  dorian: 'the bright minor: its natural 6 does not clash',
  phrygian: 'a dark minor, its b9 to pass through',
  lydian: 'a raised 4 that may be held',
  mixolydian: 'the plain dominant',
  aeolian: 'the natural minor, its b6 to pass through',
  locrian: 'the major scale’s own answer, with a b9 to pass through',
  'melodic minor': 'the minor of a chord at rest, with natural 6 and 7',
  'lydian augmented': 'raised 4 and 5 together',
  'lydian dominant': 'a dominant that does not fall a fifth',
  'mixolydian b6': 'natural 9 over a b13',
  'locrian natural 2': 'half-diminished without the b9',
  altered: 'every tension bent, to pull the hardest',
  'harmonic minor': 'the minor with a leading note',
  'locrian natural 6': 'the harmonic minor of the chord it prepares, kept through the cadence',
  'ionian #5': 'a harmonic minor from its third',
  'phrygian dominant': 'the b9 and b13 of the minor it leads to: harmonic minor from its fifth',
  'altered bb7': 'the harmonic minor a half step up, where it leads',
  'whole tone': 'steps of a whole tone round the raised 5',
  'half-whole diminished': 'a natural 13 with b9 and #9',
  'whole-half diminished': 'chord tones, each with a whole step above',
  'major pentatonic': 'the major scale without its 4 and 7',
  'major blues': 'the major third with its blue neighbour below',
  'minor blues': 'the minor blues of the chord’s own root',
  'blended blues': 'both thirds, major and blue',
};

const whyOf = ({ kind }: Collection): string =>
  WHY[kind.name] ?? 'it holds every tone of the chord';

/** The alternatives to a default mode, on the chord's root. */
function alternativesTo(usual: Collection, context: ModeContext): readonly string[] {
  const { chord, key, blues } = context;
  const { name, family } = chord.quality;
  const above = key === null ? -1 : halfSteps(intervalBetween(key.tonic, chord.root));
  if (family === 'dominant') {
    if (blues) return ['blended blues', 'major blues', 'minor blues', 'lydian dominant'];
    switch (usual.kind.name) {
      case 'mixolydian':
        return ['lydian dominant', 'altered', 'half-whole diminished'];
      case 'phrygian dominant':
        return ['altered', 'half-whole diminished', 'mixolydian b6'];
      case 'lydian dominant':
        return ['mixolydian', 'altered'];
      case 'whole tone':
        return ['altered', 'mixolydian b6'];
      case 'altered':
        return ['half-whole diminished', 'whole tone', 'phrygian dominant'];
      case 'half-whole diminished':
        return ['altered', 'mixolydian b2'];
      default:
        return ['altered', 'phrygian dominant'];
    }
  }
  switch (family) {
    case 'major':
      if (name.includes('#11')) return ['lydian augmented'];
      return usual.kind.name === 'ionian' ? ['lydian', 'major pentatonic'] : ['ionian'];
    case 'augmented':
      return ['ionian #5', 'whole tone'];
    case 'half-diminished':
      return ['locrian', 'locrian natural 6'];
    case 'diminished':
      return ['altered bb7', 'locrian'];
    case 'suspended':
      return ['aeolian', 'phrygian'];
    case 'power':
      return ['mixolydian', 'aeolian', 'dorian'];
    case 'minor': {
      if (usual.kind.name === 'melodic minor') return ['harmonic minor', 'dorian'];
      const atHome = key !== null && isMinorKey(key) && above === 0;
      const first = usual.kind.name === 'dorian' ? 'aeolian' : 'dorian';
      if (atHome) return [first, 'melodic minor', 'harmonic minor'];
      // The ii has no other.
      return above === 2 && key !== null && !isMinorKey(key) ? [] : [first];
    }
  }
}

/** Whether a mode says enough of a chord to be offered over it: its definers at least. */
function saysChord(mode: Collection, { root, quality }: Chord): boolean {
  const mask = pitchMask(collectionNotes(mode));
  const definers = quality.definers.length > 0 ? quality.definers : quality.core;
  return definers.every((one) => (mask & (1 << pitchClass(transpose(root, one)))) !== 0);
}

/** Offered for their sound, though they lack a definer: the blues over a dominant, the plain pentatonic. */
const COLOURS_OF_THEIR_OWN: ReadonlySet<string> = new Set(['blues', 'pentatonics']);

const FIFTH = degree('5');

const CHOICES = new WeakMap<ModeContext, readonly ModeChoice[]>();

/** The default mode first, then its alternatives, each with what speaks for it. */
export function modesFor(context: ModeContext): readonly ModeChoice[] {
  const known = CHOICES.get(context);
  if (known) return known;
  const found = findModes(context);
  CHOICES.set(context, found);
  return found;
}

function findModes(context: ModeContext): readonly ModeChoice[] {
  const { chord } = context;
  const usual = modeFor(context);
  const others = alternativesTo(usual, context)
    .map((name) => collection(chord.root, name))
    .filter((mode) => saysChord(mode, chord) || COLOURS_OF_THEIR_OWN.has(mode.kind.family))
    .filter(({ kind }) => kind !== usual.kind);
  const sus =
    chord.quality.family === 'suspended' && usual.kind.name === 'mixolydian'
      ? [collection(transpose(chord.root, FIFTH), 'dorian')]
      : [];
  const why = (mode: Collection): string => {
    const parent = parentCollection(mode);
    const melodic = parent?.kind.name === 'melodic minor';
    const sound = melodic ? ` (${nameByParent(mode)})` : '';
    return whyOf(mode) + sound;
  };
  return [
    { collection: usual, why: why(usual) },
    ...sus.map((mode) => ({
      collection: mode,
      why: `the minor a fifth up, ${noteName(mode.root)}, over ${chordName(chord)}`,
    })),
    ...others.map((mode) => ({ collection: mode, why: why(mode) })),
  ];
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'] as const;

/** Which note of its parent a mode begins on: "fourth". */
export const fromDegree = ({ kind }: Collection): string =>
  kind.parent === null
    ? 'first'
    : (ORDINALS[Number(degreeName(kind.parent.from).slice(-1)) - 1] ?? 'first');

/** A mode named by its parent: "Ab melodic minor from its fourth"; its own name where it has none. */
export function nameByParent(mode: Collection): string {
  const parent = parentCollection(mode);
  if (!parent) return collectionName(mode);
  const easier = easierName(mode);
  const also = easier ? `, easier as ${collectionName(easier)}` : '';
  return `${collectionName(parent)} from its ${fromDegree(mode)}${also}`;
}

/** Beats for which chords other than the tonic hold a note this far above the tonic. */
const beatsWith = (chords: readonly PlayedChord[], key: Key, size: number): number =>
  chords.reduce((sum, { chord, beats }) => {
    const tonic = halfSteps(intervalBetween(key.tonic, chord.root)) === 0;
    const holds = chordNotes(chord).some(
      (note) => halfSteps(intervalBetween(key.tonic, note)) === size,
    );
    return sum + (holds && !tonic ? beats : 0);
  }, 0);

const FLAT_SIXTH_SIZE = 8;
const NATURAL_SIXTH_SIZE = 9;

const SIXTHS = new WeakMap<Chart, Map<string, boolean>>();

/** Whether the chart itself leans to the natural sixth of a minor key. */
function leansToNaturalSixth(chart: Chart, key: Key | null): boolean {
  if (key === null || !isMinorKey(key)) return false;
  const known = SIXTHS.get(chart) ?? new Map<string, boolean>();
  SIXTHS.set(chart, known);
  const id = `${key.tonic} ${key.mode}`;
  const found =
    known.get(id) ??
    beatsWith(chart.chords, key, NATURAL_SIXTH_SIZE) >
      beatsWith(chart.chords, key, FLAT_SIXTH_SIZE);
  known.set(id, found);
  return found;
}

/** What decides the mode of a chord of a chart; null where the chart has no such chord. */
export function modeContextAt(chart: Chart, reading: Reading, index: number): ModeContext | null {
  const played = chart.chords[index];
  if (!played) return null;
  const next = nextChange(chart, index);
  const key = writtenKeyAt(chart, played) ?? reading.key.key;
  return {
    chord: played.chord,
    next: next === null ? null : (chart.chords[next]?.chord ?? null),
    key,
    blues: reading.blues,
    naturalSixth: leansToNaturalSixth(chart, key),
  };
}

/** The mode to play over a chord of a chart; null where the chart has no such chord. */
export function modeAt(chart: Chart, reading: Reading, index: number): Collection | null {
  const context = modeContextAt(chart, reading, index);
  return context && modeFor(context);
}

/** The words for why a mode is offered, and its names by its parent. */
import { type Chord, chordName } from '../chords/chords';
import {
  type Collection,
  collectionName,
  easierName,
  parentCollection,
} from '../collections/collections';
import { degreeName } from '../notes/degrees';
import { noteName } from '../notes/notes';
import type { ModeChoice } from './modes';
import type { ModeReason } from './modeRules';

/** What a mode sounds like over a chord on its root. */
const SOUNDS: Readonly<Record<string, string>> = {
  ionian: 'the major scale of a chord at rest',
  dorian: 'the bright minor: its natural 6 does not clash',
  phrygian: 'a dark minor, its b9 to pass through',
  lydian: 'a raised 4 that may be held',
  mixolydian: 'the plain dominant',
  aeolian: 'the natural minor, its b6 to pass through',
  locrian: 'the major scale’s own answer, with a b9 to pass through',
  'melodic minor': 'the minor of a chord at rest, with natural 6 and 7',
  'lydian augmented': 'raised 4 and 5 together',
  'lydian dominant': 'a dominant with a raised 4 that may be held',
  'mixolydian b6': 'natural 9 over a b13',
  'locrian natural 2': 'half-diminished without the b9',
  altered: 'every tension bent, to pull the hardest',
  'harmonic minor': 'the minor with a leading note',
  'locrian natural 6': 'the harmonic minor of the chord it prepares, kept through the cadence',
  'ionian #5': 'a harmonic minor from its third',
  'phrygian dominant': 'b9 and b13 under a major third: harmonic minor from its fifth',
  'altered bb7': 'the harmonic minor a half step up, where it leads',
  'whole tone': 'steps of a whole tone round the raised 5',
  'half-whole diminished': 'a natural 13 with b9 and #9',
  'whole-half diminished': 'chord tones, each with a whole step above',
  'major pentatonic': 'the major scale without its 4 and 7',
  'major blues': 'the major third with its blue neighbour below',
  'minor blues': 'the minor blues of the chord’s own root',
  'blended blues': 'both thirds, major and blue',
};

const REASONS: Readonly<Record<Exclude<ModeReason, 'sound'>, string>> = {
  'home dominant': 'a dominant at home in the blues',
  'dominant at rest': 'a dominant that goes nowhere, and need not pull',
  'does not fall a fifth': 'a dominant that does not fall a fifth: its raised 4 may be held',
  'leads to minor': 'the b9 and b13 of the minor it leads to: harmonic minor from its fifth',
  'minor ii–V': 'a minor ii–V, kept dark until the chord it lands on',
  'raises the seventh': 'the minor with a leading note: it raises the chord’s own b7',
  'a fifth up': 'the minor a fifth up',
  'key’s own': 'the key’s own notes from this root',
  'flat seventh': 'the chart’s own major chord on b7 gives it',
  'lower of two': 'the upper chord’s root is its b9: both chords in one scale',
};

/** What speaks for a mode over a chord, as the beginning of a sentence. */
export function modeWhy(chord: Chord, { collection: mode, reason }: ModeChoice): string {
  if (reason === 'a fifth up') {
    return `${REASONS[reason]}, ${noteName(mode.root)}, over ${chordName(chord)}`;
  }
  const words =
    reason === 'sound'
      ? (SOUNDS[mode.kind.name] ?? 'it holds every tone of the chord')
      : REASONS[reason];
  const melodic = parentCollection(mode)?.kind.name === 'melodic minor';
  return melodic ? `${words} (${nameByParent(mode)})` : words;
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'] as const;

/** Which note of its parent a mode begins on: "fourth". */
const fromDegree = ({ kind }: Collection): string =>
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

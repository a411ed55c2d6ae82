/** The modes to play over a chord by what it does in its key: the rules of `modeRules.ts` applied. */
import type { Chart } from '../chart/form';
import { type Chord, chordNotes } from '../chords/chords';
import {
  type Collection,
  collection,
  COLLECTION_KINDS,
  collectionNotes,
  MODAL_FAMILIES,
  modesOf,
  pitchMask,
} from '../collections/collections';
import { isDiatonic } from '../harmony/membership';
import type { Reading } from '../harmony/reading';
import { isMinorKey, type Key, keyScale } from '../keys/keys';
import { rememberOf } from '../cache';
import { degree } from '../notes/degrees';
import { pitchClass, transpose } from '../notes/notes';
import { aboveTonic, goalOf, type ModeContext, modeContextAt } from './modeContext';
import { MODE_RULES, type ModeOffer, type ModeReason, type ModeRule } from './modeRules';

/** A mode with the reason it is offered. */
export interface ModeChoice {
  readonly collection: Collection;
  readonly reason: ModeReason;
}

const TRIAD = 3;

function fits(rule: ModeRule, context: ModeContext): boolean {
  const { chord, moment: key, blues, settings } = context;
  const { name, family, core } = chord.quality;
  const above = aboveTonic(context);
  const mode = key === null ? 'none' : isMinorKey(key) ? 'minor' : 'major';
  return (
    (rule.is.includes(name) || rule.is.includes(family)) &&
    (rule.triad === undefined || rule.triad === (core.length === TRIAD)) &&
    (rule.key === undefined || rule.key === mode) &&
    (rule.on === undefined || (above !== null && rule.on.includes(above))) &&
    (rule.goes === undefined || rule.goes.includes(goalOf(context))) &&
    (rule.setting === undefined || settings.includes(rule.setting)) &&
    (rule.blues === undefined || rule.blues === blues)
  );
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

const FIFTH = degree('5');

const offered = (chord: Chord, { mode, reason, onFifth }: ModeOffer): ModeChoice => ({
  collection: collection(onFifth ? transpose(chord.root, FIFTH) : chord.root, mode),
  reason,
});

const holdsAll = (mode: Collection, chord: Chord): boolean =>
  (pitchMask(chordNotes(chord)) & ~pitchMask(collectionNotes(mode))) === 0;

const MODAL_KINDS = COLLECTION_KINDS.filter(
  ({ name, family }) =>
    MODAL_FAMILIES.has(family) || (family === 'symmetric' && name !== 'chromatic'),
);

/** Notes of a mode a half step above a chord tone. */
function rubs(mode: Collection, chord: Chord): number {
  const tones = new Set(chordNotes(chord).map(pitchClass));
  return collectionNotes(mode).filter(
    (note) => !tones.has(pitchClass(note)) && tones.has((pitchClass(note) + 11) % 12),
  ).length;
}

/** Where the usual mode lacks a tone the symbol names: one that holds them all and rubs the least. */
function mended(usual: ModeChoice, chord: Chord): ModeChoice {
  // An altered scale holds no fifth, and is meant all the same.
  if (usual.collection.kind.name === 'altered' || holdsAll(usual.collection, chord)) return usual;
  const found = MODAL_KINDS.map((kind): Collection => ({ root: chord.root, kind }))
    .filter((mode) => holdsAll(mode, chord))
    .reduce<Collection | null>(
      (best, mode) => (best === null || rubs(mode, chord) < rubs(best, chord) ? mode : best),
      null,
    );
  return found ? { collection: found, reason: 'sound' } : usual;
}

/** Whether a mode says enough of a chord to be offered over it: its guide tones at least. */
function saysChord(mode: Collection, { root, quality }: Chord): boolean {
  const mask = pitchMask(collectionNotes(mode));
  const guideTones = quality.guideTones.length > 0 ? quality.guideTones : quality.core;
  return guideTones.every((one) => (mask & (1 << pitchClass(transpose(root, one)))) !== 0);
}

/** Offered for their sound, though they lack a guide tone: the blues over a dominant, the plain pentatonic. */
const COLOURS_OF_THEIR_OWN: ReadonlySet<string> = new Set(['blues', 'pentatonics']);

/** Reasons that say themselves what of the chord the mode lacks. */
const SAYING_SO: ReadonlySet<ModeReason> = new Set(['raises the seventh', 'lower of two']);

const isOffered = ({ collection: mode, reason }: ModeChoice, chord: Chord): boolean =>
  SAYING_SO.has(reason) || saysChord(mode, chord) || COLOURS_OF_THEIR_OWN.has(mode.kind.family);

function findModes(context: ModeContext): readonly ModeChoice[] {
  const { chord, moment: key } = context;
  const rule = MODE_RULES.find((one) => fits(one, context));
  const choices = (rule?.offers ?? []).map((one) => offered(chord, one));
  const modal = key ? modalMode(chord, key) : null;
  const ruled = choices[0] ?? { collection: collection(chord.root, 'ionian'), reason: 'sound' };
  const first = mended(modal ? { collection: modal, reason: 'key’s own' } : ruled, chord);
  const others = choices.filter(
    (one) =>
      isOffered(one, chord) &&
      (one.collection.kind !== first.collection.kind ||
        one.collection.root !== first.collection.root),
  );
  return [first, ...others];
}

/** The default mode first, then its alternatives, each with the reason for it. */
export const modesFor = rememberOf(findModes);

/**
 * One seven-note collection (eight or six where the chord is symmetric) for a chord. Where the
 * usual one lacks a tone the symbol names, the one that holds them all and rubs the least.
 */
export const modeFor = (context: ModeContext): Collection => {
  const [first] = modesFor(context);
  return first?.collection ?? collection(context.chord.root, 'ionian');
};

/** The mode to play over a chord of a chart; null where the chart has no such chord. */
export function modeAt(chart: Chart, reading: Reading, index: number): Collection | null {
  const context = modeContextAt(chart, reading, index);
  return context && modeFor(context);
}

/** Keys: a tonic and a mode. */
import { lookUp } from '../lists';
import { degrees } from '../notes/degrees';
import { type Interval, type Note, noteName, parseNote } from '../notes/notes';
import { inLetters } from '../notes/naming';

/** The modes a key may be in. */
export const KEY_MODES = [
  'major',
  'minor',
  'dorian',
  'phrygian',
  'lydian',
  'mixolydian',
  'locrian',
] as const;
export type KeyMode = (typeof KEY_MODES)[number];

/** A tonic and a mode. */
export interface Key {
  readonly tonic: Note;
  readonly mode: KeyMode;
}

const MODE_NAMES: Readonly<Record<string, KeyMode>> = {
  '': 'major',
  dur: 'major',
  moll: 'minor',
  maj: 'major',
  major: 'major',
  ionian: 'major',
  m: 'minor',
  '-': 'minor',
  min: 'minor',
  mi: 'minor',
  minor: 'minor',
  aeolian: 'minor',
  dorian: 'dorian',
  phrygian: 'phrygian',
  lydian: 'lydian',
  mixolydian: 'mixolydian',
  locrian: 'locrian',
};

/**
 * Reads `Eb`, `F#m`, `C minor`, `D dorian`, `h moll`, `Sol m`; null for anything else.
 *
 * @example
 * parseKey('Am').mode; // "minor"
 * parseKey('X'); // null
 */
export function parseKey(text: string): Key | null {
  const lettered = inLetters(text.trim(), true);
  const match = /^([A-G][#b♯♭]?)\s*([A-Za-z-]*)$/u.exec(lettered);
  const tonic = parseNote(match?.[1] ?? '');
  const word = match?.[2] ?? '';
  const mode =
    lookUp(MODE_NAMES, word) ?? lookUp(MODE_NAMES, word === 'M' ? '' : word.toLowerCase());
  return tonic === null || mode === undefined ? null : { tonic, mode };
}

/**
 * `Eb`, `F#m`, `D dorian`: what a chart's `key:` line holds.
 *
 * @example writeKey(parseKey('Eb minor')); // "Ebm"
 */
export function writeKey(key: Key): string {
  const suffix = key.mode === 'major' ? '' : key.mode === 'minor' ? 'm' : ` ${key.mode}`;
  return noteName(key.tonic) + suffix;
}

/**
 * `Eb major`.
 *
 * @example keyName(parseKey('Ebm')); // "Eb minor"
 */
export const keyName = (key: Key): string => `${noteName(key.tonic)} ${key.mode}`;

/** The scales a key owns, as degrees: a minor key has both sixths and both sevenths. */
const SCALES: Readonly<Record<KeyMode, readonly (readonly Interval[])[]>> = {
  major: [degrees('1 2 3 4 5 6 7')],
  minor: [degrees('1 2 b3 4 5 b6 b7'), degrees('1 2 b3 4 5 b6 7'), degrees('1 2 b3 4 5 6 7')],
  dorian: [degrees('1 2 b3 4 5 6 b7')],
  phrygian: [degrees('1 b2 b3 4 5 b6 b7')],
  lydian: [degrees('1 2 3 #4 5 6 7')],
  mixolydian: [degrees('1 2 3 4 5 6 b7')],
  locrian: [degrees('1 b2 b3 4 b5 b6 b7')],
};

/** The scales of a mode, in intervals over the tonic; minor has more than one. */
export const keyScales = (key: Key): readonly (readonly Interval[])[] => SCALES[key.mode];

/**
 * The scale a key is written in: natural minor for a minor key.
 *
 * @example keyScale(parseKey('Am')).map(degreeName); // ["1","2","b3","4","5","b6","b7"]
 */
export const keyScale = (key: Key): readonly Interval[] => SCALES[key.mode][0] ?? [];

/** Whether the key's third is minor. */
export const isMinorKey = (key: Key): boolean =>
  key.mode !== 'major' && key.mode !== 'lydian' && key.mode !== 'mixolydian';

const SIGNATURE_OFFSET: Readonly<Record<KeyMode, number>> = {
  lydian: -1,
  major: 0,
  mixolydian: 1,
  dorian: 2,
  minor: 3,
  phrygian: 4,
  locrian: 5,
};

/**
 * The major tonic with the same signature; its line-of-fifths number counts the sharps.
 *
 * @example noteName(signatureTonic(parseKey('Am'))); // "C"
 */
export const signatureTonic = (key: Key): Note => (key.tonic - SIGNATURE_OFFSET[key.mode]) as Note;

/**
 * Sharps in a key's signature, flats below 0; keys of more than seven are written enharmonically.
 *
 * @example signatureOf(parseKey('Eb')); // -3
 */
export function signatureOf(key: Key): number {
  const sharps: number = signatureTonic(key);
  return sharps > 7 ? sharps - 12 : sharps < -7 ? sharps + 12 : sharps;
}

/**
 * The key with this many sharps (negative: flats).
 *
 * @example keyName(keyOfSignature(2, 'major')); // "D major"
 */
export const keyOfSignature = (sharps: number, mode: KeyMode): Key => ({
  tonic: (sharps + SIGNATURE_OFFSET[mode]) as Note,
  mode,
});

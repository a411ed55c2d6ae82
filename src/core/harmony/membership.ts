/** Which notes and chords a key owns. */
import { rememberOf } from '../cache';
import type { Chord } from '../chords/chords';
import type { Quality } from '../chords/qualities';
import { halfSteps, type Interval, intervalBetween, type Note } from '../notes/notes';
import { type Key, keyScale, keyScales } from '../keys/keys';

const maskOf = (scale: readonly Interval[]): number =>
  scale.reduce((mask, degree) => mask | (1 << halfSteps(degree)), 0);

const masksOf = rememberOf((scales: readonly (readonly Interval[])[]) => scales.map(maskOf));

const qualityMask = rememberOf((quality: Quality) => maskOf(quality.degrees));

/** The chord's tones as half steps above the tonic, one bit each. */
function chordMask(chord: Chord, tonic: Note): number {
  const mask = qualityMask(chord.quality);
  const up = halfSteps(intervalBetween(tonic, chord.root));
  return ((mask << up) | (mask >> (12 - up))) & 0xfff;
}

/**
 * Whether one scale of the key holds every tone of the chord.
 *
 * @example isDiatonic(parseChord('E7'), parseKey('C')); // false
 */
export function isDiatonic(chord: Chord, key: Key): boolean {
  const mask = chordMask(chord, key.tonic);
  return masksOf(keyScales(key)).some((scale) => (mask & ~scale) === 0);
}

/** Whether the key's scale at `index` (natural, harmonic, melodic in minor) holds the chord. */
export function isInScale(chord: Chord, key: Key, index: number): boolean {
  const scale = masksOf(keyScales(key))[index];
  return scale !== undefined && (chordMask(chord, key.tonic) & ~scale) === 0;
}

const coreOf = rememberOf((quality: Quality): Quality => ({ ...quality, degrees: quality.core }));

/** A chord without its tensions: a key owns a Imaj7#11 as it owns its Imaj7. */
export const withoutTensions = (chord: Chord): Chord => ({
  ...chord,
  quality: coreOf(chord.quality),
});

/** Share of the chord's tones that the best-fitting scale of the key holds, 0–1. */
export function diatonicShare(chord: Chord, key: Key): number {
  const mask = chordMask(chord, key.tonic);
  const size = countBits(mask);
  return Math.max(...masksOf(keyScales(key)).map((scale) => countBits(mask & scale) / size));
}

/** How many pitch classes a mask holds. */
export function countBits(mask: number): number {
  let count = 0;
  for (let rest = mask; rest !== 0; rest &= rest - 1) count += 1;
  return count;
}

/**
 * Whether the key's own scale (natural minor in minor) holds the note.
 *
 * @example inKey(note('F#'), parseKey('G')); // true
 */
export function inKey(note: Note, key: Key): boolean {
  const size = halfSteps(intervalBetween(key.tonic, note));
  return keyScale(key).some((degree) => halfSteps(degree) === size);
}

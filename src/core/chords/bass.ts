/** What a bass that is no tone of its chord makes of it. */
import { halfSteps, intervalBetween } from '../notes/notes';
import type { Chord } from './chords';
import { parseChord } from './symbols';

/** A triad over its sixth or its seventh is a chord of four notes, by the half steps of the bass. */
const FOURTH_TONE: Readonly<Record<string, Readonly<Record<number, string>>>> = {
  '': { 9: '6', 10: '7', 11: 'maj7' },
  m: { 9: 'm6', 10: 'm7', 11: 'm(maj7)' },
};

/**
 * A triad whose bass is its sixth or its seventh, as the chord it sounds; any other chord as it is. The
 * symbol stays.
 *
 * @example withBassTone(parseChord('C/Bb')).quality.name; // "7"
 */
export function withBassTone(chord: Chord): Chord {
  if (chord.bass === null) return chord;
  const size = halfSteps(intervalBetween(chord.root, chord.bass));
  const suffix = FOURTH_TONE[chord.quality.name]?.[size];
  const whole = suffix === undefined ? null : parseChord(`C${suffix}`);
  return whole ? { ...chord, quality: whole.quality } : chord;
}

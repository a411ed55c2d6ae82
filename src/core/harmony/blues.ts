/** Recognising a blues: dominants at home on I, IV and V, or the minor blues. */
import type { Chord } from '../chords/chords';
import { at } from '../lists';
import { halfSteps, intervalBetween, type Note } from '../notes/notes';
import { type Change, isMinorChord } from './changes';
import type { Key } from '../keys/keys';
import type { Beats } from '../time/units';

/** Half steps of IV and V above the tonic. */
const SUBDOMINANT = 5;
const DOMINANT = 7;

const beatsOf = (changes: readonly Change[]): Beats =>
  changes.reduce((sum, { beats }) => sum + beats, 0);

const above = (tonic: Note, chord: Chord): number => halfSteps(intervalBetween(tonic, chord.root));

/**
 * The key of a blues: the first chord is a dominant on I that stays one, a dominant stands on IV,
 * and those two with V fill at least half of the time. Null when the changes are no blues.
 *
 * @example keyName(findBlues(changesOf(read('| A7 | D7 | A7 | E7 |').chords))); // "A major"
 */
export function findBlues(changes: readonly Change[]): Key | null {
  const first = at(changes, 0).chord;
  if (first.quality.family !== 'dominant') return null;
  const tonic = first.root;
  const homes = changes.filter(({ chord }) => chord.quality.family === 'dominant');
  const onTonic = homes.filter(({ chord }) => above(tonic, chord) === 0).length;
  const onFour = homes.some(({ chord }) => above(tonic, chord) === SUBDOMINANT);
  const returns = onTonic > 1;
  const primary = homes.filter(({ chord }) =>
    [0, SUBDOMINANT, DOMINANT].includes(above(tonic, chord)),
  );
  const enough = 2 * beatsOf(primary) >= beatsOf(changes);
  // Nothing but I7 and IV7 going round is a vamp of the blues, though neither comes back in it.
  const vamp = primary.length === changes.length;
  return onFour && (returns || vamp) && enough ? { tonic, mode: 'major' } : null;
}

/** Whether a chord is one of a blues' home dominants (I7, IV7, V7), none of which must resolve. */
export const isBluesHome = (chord: Chord, key: Key): boolean =>
  chord.quality.family === 'dominant' &&
  [0, SUBDOMINANT, DOMINANT].includes(above(key.tonic, chord));

/**
 * Whether I7 and IV7 are at home in a key at their first sight, where a blues is meant anyway: the chart
 * begins on its I7, has its IV7, and these two with V7 fill at least half of the time.
 */
export function dominantsAtHome(changes: readonly Change[], key: Key): boolean {
  const homes = changes.filter(({ chord }) => isBluesHome(chord, key));
  const first = homes[0];
  const begins = first !== undefined && first === changes[0] && above(key.tonic, first.chord) === 0;
  const onFour = homes.some(({ chord }) => above(key.tonic, chord) === SUBDOMINANT);
  return begins && onFour && 2 * beatsOf(homes) >= beatsOf(changes);
}

/** The twelve-bar forms, judged by the chord at the head of each bar; null when it is none. */
export function twelveBarName(heads: readonly (Chord | null)[], key: Key): string | null {
  if (heads.length === 0 || heads.length % 12 !== 0) return null;
  const degree = (bar: number): number => {
    const chord = heads[bar - 1];
    return chord ? above(key.tonic, chord) : -1;
  };
  const skeleton = degree(1) === 0 && degree(5) === SUBDOMINANT && degree(7) === 0;
  if (!skeleton) return null;
  const first = heads[0];
  const minor = first !== null && first !== undefined && isMinorChord(first);
  if (minor) return '12-bar minor blues';
  const jazz = degree(9) === 2 && degree(10) === DOMINANT;
  if (jazz) return '12-bar jazz blues';
  const turns = degree(9) === DOMINANT || degree(9) === SUBDOMINANT;
  if (!turns) return null;
  return degree(2) === SUBDOMINANT ? '12-bar blues, quick change' : '12-bar blues';
}

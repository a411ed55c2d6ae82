/** Chords as long as they stay, and a ii–V read as the one sound that players take it for. */
import type { Chart } from '../chart/form';
import { type Chord, sameChord } from '../chords/chords';
import { FALLING_FIFTH, rootMotion } from '../harmony/changes';
import { chordOn } from '../lenses/material';
import { at } from '../lists';
import { degree } from '../notes/degrees';
import { transpose } from '../notes/notes';
import type { Beats } from '../time/units';

/** A chord for as long as it stays. */
export interface Stay {
  readonly index: number;
  readonly chord: Chord;
  readonly beat: Beats;
  readonly end: Beats;
  /** The chords that are played there, where they are read as this one. */
  readonly under?: readonly Chord[];
}

/** The chord under whose sound a ii and its V are played: the IV, in minor the iv with its sixth. */
function subdominantOf(two: Chord, five: Chord): Chord | null {
  if (five.quality.family !== 'dominant' || rootMotion(two, five) !== FALLING_FIFTH) return null;
  const four = transpose(two.root, degree('b3'));
  if (two.quality.family === 'half-diminished') return chordOn(four, 'm6');
  const seventh = two.quality.family === 'minor' && two.quality.degrees.includes(degree('b7'));
  return seventh ? chordOn(four, 'maj7') : null;
}

/** Some chords with each ii–V as the one sound it is played under. */
export function simplified(stays: readonly Stay[]): readonly Stay[] {
  const found: Stay[] = [];
  for (let place = 0; place < stays.length; place++) {
    const [two, five] = [at(stays, place), stays[place + 1]];
    const chord = five ? subdominantOf(two.chord, five.chord) : null;
    if (!five || !chord) found.push(two);
    else {
      found.push({ ...two, chord, end: five.end, under: [two.chord, five.chord] });
      place++;
    }
  }
  return found;
}

/** The chords of a chart from each of its entries on, the same one in a row as one. */
export function staysFrom({ chords }: Chart, index: number, most = Infinity): readonly Stay[] {
  const stays: Stay[] = [];
  for (let place = index; place < chords.length; place++) {
    const { chord, beat, beats, index: own } = at(chords, place);
    const last = stays.at(-1);
    const joined = last !== undefined && last.end === beat;
    if (last && joined && sameChord(last.chord, chord)) {
      stays[stays.length - 1] = { ...last, end: beat + beats };
    } else if (stays.length === most || (last && !joined)) break;
    else stays.push({ index: own, chord, beat, end: beat + beats });
  }
  return stays;
}

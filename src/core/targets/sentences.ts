/** Steps of a route in words: "Db falls a half step to C, third of Abmaj7". */
import { type Chord, chordName } from '../chords/chords';
import { toneName } from '../lenses/assess';
import { degreeName } from '../notes/degrees';
import { type Interval, type Note, noteName } from '../notes/notes';
import type { Place } from '../neck/neck';

const SIZES = [
  'unison',
  'a half step',
  'a whole step',
  'a minor third',
  'a major third',
  'a fourth',
  'a tritone',
  'a fifth',
  'a minor sixth',
  'a major sixth',
  'a minor seventh',
  'a major seventh',
  'an octave',
] as const;

/** "a half step", "a fourth"; beyond an octave in half steps. */
export const spokenSize = (halfSteps: number): string =>
  SIZES[Math.abs(halfSteps)] ?? `${Math.abs(halfSteps)} half steps`;

const ALTERED: Readonly<Record<string, string>> = {
  b2: 'flat ninth',
  '#2': 'sharp ninth',
  '#4': 'sharp eleventh',
  b6: 'flat thirteenth',
};

/** "third of Abmaj7". */
function whatItIs(chord: Chord, note: Note, degree: Interval): string {
  const altered = chord.quality.core.includes(degree) ? undefined : ALTERED[degreeName(degree)];
  return `${altered ?? toneName(chord, note)} of ${chordName({ ...chord, bass: null })}`;
}

export interface SpokenStop extends Place {
  readonly note: Note;
  readonly degree: Interval;
  readonly halfSteps: number;
}

/** What a step does; where there is no note before, where to begin. */
export function stepSentence(chord: Chord, stop: SpokenStop, before: Note | null): string {
  const is = whatItIs(chord, stop.note, stop.degree);
  const name = noteName(stop.note);
  if (before === null) {
    const fret = stop.fret === 0 ? 'open' : `fret ${stop.fret}`;
    return `Begin on ${name}, ${is}: string ${stop.string}, ${fret}.`;
  }
  if (stop.halfSteps === 0) return `${name} holds: ${is}.`;
  const size = spokenSize(stop.halfSteps);
  const verb =
    Math.abs(stop.halfSteps) <= 2
      ? stop.halfSteps > 0
        ? 'rises'
        : 'falls'
      : stop.halfSteps > 0
        ? 'leaps up'
        : 'leaps down';
  return `${noteName(before)} ${verb} ${size} to ${name}, ${is}.`;
}

/** Steps of a route in words: "Db falls a half step to C, third of Abmaj7". */
import { type Chord, chordName } from '../chords/chords';
import { toneName } from '../lenses/assess';
import { degreeName } from '../notes/degrees';
import { type Interval, type Note, noteName, step } from '../notes/notes';
import { type Place, placeWords } from '../neck/neck';

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
  const name = chordName({ ...chord, bass: null });
  const own = chord.quality.degrees.includes(degree);
  const altered = chord.quality.core.includes(degree) ? undefined : ALTERED[degreeName(degree)];
  // A third or seventh by its letter alone is none of the chord's.
  if (!own && OWN_STEPS.includes(step(degree)) && altered === undefined) {
    return `${degreeName(degree)} over ${name}`;
  }
  return `${altered ?? toneName(chord, note)} of ${name}`;
}

/** Root, third, fifth and seventh, as steps from the root. */
const OWN_STEPS: readonly number[] = [0, 2, 4, 6];

interface StopBefore extends Place {
  readonly note: Note;
}

interface SpokenStop extends Place {
  readonly note: Note;
  readonly degree: Interval;
  readonly halfSteps: number;
}

/** What a step does; where there is no note before, where to begin. */
export function stepSentence(chord: Chord, stop: SpokenStop, before: StopBefore | null): string {
  const is = whatItIs(chord, stop.note, stop.degree);
  const name = noteName(stop.note);
  if (before === null) {
    return `Begin on ${name}, ${is}: ${placeWords(stop)}.`;
  }
  if (stop.halfSteps === 0) {
    const moved = before.string !== stop.string;
    return moved
      ? `${name} holds, the hand going to ${placeWords(stop)}: ${is}.`
      : `${name} holds: ${is}.`;
  }
  const size = spokenSize(stop.halfSteps);
  const verb =
    Math.abs(stop.halfSteps) <= 2
      ? stop.halfSteps > 0
        ? 'rises'
        : 'falls'
      : stop.halfSteps > 0
        ? 'leaps up'
        : 'leaps down';
  return `${noteName(before.note)} ${verb} ${size} to ${name}, ${is}.`;
}

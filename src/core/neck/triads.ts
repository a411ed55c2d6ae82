/** Triads on three neighbouring strings, their inversions, and ways through a chart with them. */
import type { Chord } from '../chords/chords';
import { at, range } from '../lists';
import { degree } from '../notes/degrees';
import { type Interval, type Note, pitchClass, step, transpose } from '../notes/notes';
import { type Placed, spanOf } from './fingering';
import { fretFor, type Neck, openPitch, pitchAt, stringCount } from './neck';

export const INVERSIONS = ['root', 'first', 'second'] as const;
export type Inversion = (typeof INVERSIONS)[number];

export const INVERSION_NAMES: Readonly<Record<Inversion, string>> = {
  root: 'root position',
  first: 'first inversion',
  second: 'second inversion',
};

/** A triad in close position; `places` from its lowest note up. */
export interface TriadShape {
  readonly inversion: Inversion;
  readonly places: readonly Placed[];
}

/** The chord's triad: root, third (or what stands for it) and fifth; a power chord doubles its root. */
export function triadOf({ root, quality }: Chord): readonly Note[] {
  const tones = quality.core;
  const byStep = (wanted: number): Interval | undefined =>
    tones.find((tone) => step(tone) === wanted);
  const third = byStep(2) ?? byStep(3) ?? byStep(1);
  // An altered chord names no fifth; its flat thirteenth stands for it.
  const fifth = byStep(4) ?? degree(quality.altered ? 'b6' : '5');
  return [degree('1'), ...(third === undefined ? [] : [third]), fifth].map((tone) =>
    transpose(root, tone),
  );
}

/** The sets of three neighbouring strings, highest first: 1-2-3, 2-3-4, … */
export const stringSets = (neck: Neck): readonly (readonly number[])[] =>
  range(1, stringCount(neck) - 1).map((first) => [first, first + 1, first + 2]);

/** Every triad of the chord on a set of strings, each inversion in each octave, by pitch. */
export function triadShapes(
  neck: Neck,
  chord: Chord,
  strings: readonly number[],
): readonly TriadShape[] {
  const fromLow = [...strings].sort((a, b) => b - a);
  const triad = triadOf(chord);
  if (triad.length < 3) return [];
  const shapes = INVERSIONS.flatMap((inversion, turn) => {
    const voices = range(0, 3).map((voice) => at(triad, (turn + voice) % 3));
    const lowest = at(fromLow, 0);
    return range(0, 3).flatMap((octave): readonly TriadShape[] => {
      const open = openPitch(neck, lowest);
      const first = open + ((pitchClass(at(voices, 0)) - (open % 12) + 12) % 12) + 12 * octave;
      let midi = first;
      const places: Placed[] = [];
      for (const [index, note] of voices.entries()) {
        if (index > 0) midi += ((pitchClass(note) - (midi % 12) + 11) % 12) + 1;
        const string = at(fromLow, index);
        const fret = fretFor(neck, string, midi);
        if (fret === null) return [];
        places.push({ string, fret, note });
      }
      const { low, high } = spanOf(places);
      return high - low > MOST_SPAN ? [] : [{ inversion, places }];
    });
  });
  return shapes.sort((a, b) => totalPitch(neck, a) - totalPitch(neck, b));
}

/** A wider triad is no small movable shape. */
const MOST_SPAN = 5;

const totalPitch = (neck: Neck, { places }: TriadShape): number =>
  places.reduce((sum, place) => sum + pitchAt(neck, place), 0);

/** Half steps that the voices move in all, voice by voice. */
export const motionBetween = (neck: Neck, from: TriadShape, to: TriadShape): number =>
  from.places.reduce(
    (sum, place, voice) =>
      sum + Math.abs(pitchAt(neck, at(to.places, voice)) - pitchAt(neck, place)),
    0,
  );

export type TriadPath = 'nearest' | 'up' | 'down';

export interface TriadMove {
  readonly note: Note;
  readonly to: Note;
  readonly halfSteps: number;
}

export interface TriadStep extends TriadShape {
  /** Index of the chord among those given. */
  readonly index: number;
  readonly held: readonly Note[];
  readonly moves: readonly TriadMove[];
  /** Set where the neck ran out and the way turned round. */
  readonly turned: boolean;
}

function nearestShape(
  neck: Neck,
  from: TriadShape,
  shapes: readonly TriadShape[],
): TriadShape | null {
  const middle = (shape: TriadShape) => spanOf(shape.places).low;
  return shapes.reduce<TriadShape | null>((best, shape) => {
    if (best === null) return shape;
    const less =
      motionBetween(neck, from, shape) - motionBetween(neck, from, best) ||
      Math.abs(middle(shape) - middle(from)) - Math.abs(middle(best) - middle(from));
    return less < 0 ? shape : best;
  }, null);
}

function voicesBetween(
  neck: Neck,
  from: TriadShape,
  to: TriadShape,
): Pick<TriadStep, 'held' | 'moves'> {
  const held: Note[] = [];
  const moves: TriadMove[] = [];
  from.places.forEach((place, voice) => {
    const goal = at(to.places, voice);
    const halfSteps = pitchAt(neck, goal) - pitchAt(neck, place);
    if (halfSteps === 0) held.push(goal.note);
    else moves.push({ note: place.note, to: goal.note, halfSteps });
  });
  return { held, moves };
}

/** The next shape strictly above (or below) another, nearest first; null where the neck ends. */
function beyond(
  neck: Neck,
  from: TriadShape,
  shapes: readonly TriadShape[],
  direction: 1 | -1,
): TriadShape | null {
  const height = totalPitch(neck, from);
  const further = shapes.filter((shape) => (totalPitch(neck, shape) - height) * direction > 0);
  return (direction > 0 ? further[0] : further.at(-1)) ?? null;
}

export interface TriadRoute {
  readonly strings: readonly number[];
  readonly path: TriadPath;
  /** The inversion to begin with; by itself the lowest shape (the highest for a way down). */
  readonly start?: Inversion | undefined;
}

/**
 * Triads through a row of chords: always the nearest inversion, or always up, or always down and
 * turning round where the neck ends. Chords without a triad are passed over.
 */
export function triadPath(
  neck: Neck,
  chords: readonly Chord[],
  { strings, path, start }: TriadRoute,
): readonly TriadStep[] {
  const steps: TriadStep[] = [];
  let direction: 1 | -1 = path === 'down' ? -1 : 1;
  for (const [index, chord] of chords.entries()) {
    const shapes = triadShapes(neck, chord, strings);
    const last = steps.at(-1);
    if (!last) {
      const wanted = shapes.filter(({ inversion }) => start === undefined || inversion === start);
      const first = path === 'down' ? (wanted.at(-1) ?? shapes.at(-1)) : (wanted[0] ?? shapes[0]);
      if (first) steps.push({ ...first, index, held: [], moves: [], turned: false });
      continue;
    }
    let turned = false;
    let shape =
      path === 'nearest' ? nearestShape(neck, last, shapes) : beyond(neck, last, shapes, direction);
    if (!shape && path !== 'nearest') {
      direction = direction === 1 ? -1 : 1;
      shape = beyond(neck, last, shapes, direction);
      turned = true;
    }
    if (shape) steps.push({ ...shape, index, ...voicesBetween(neck, last, shape), turned });
  }
  return steps;
}

/** A crossing: what happens to the notes when one chord gives way to the next. */
import { modulo } from '../lists';
import { type Note, pitchClass } from '../notes/notes';

/** A note that gives way to a neighbour; `halfSteps` is signed, up positive, and 1 or 2 in size. */
export interface Move {
  readonly from: Note;
  readonly to: Note;
  readonly halfSteps: number;
}

/** Every note before is held, moves or leaves; every note after was held, moved to or arrives. */
export interface Crossing {
  readonly held: readonly Note[];
  readonly moves: readonly Move[];
  readonly leaves: readonly Note[];
  readonly arrives: readonly Note[];
}

/** Signed distance in half steps from one pitch class to another, −5 to 6. */
export const shortestWay = (from: Note, to: Note): number =>
  modulo(pitchClass(to) - pitchClass(from) + 5, 12) - 5;

const LARGEST_MOVE = 2;

/** Matches the notes that change to their nearest new neighbours, half steps first. */
export function cross(before: readonly Note[], after: readonly Note[]): Crossing {
  const afterClasses = new Set(after.map(pitchClass));
  const beforeClasses = new Set(before.map(pitchClass));
  const going = before.filter((note) => !afterClasses.has(pitchClass(note)));
  const coming = after.filter((note) => !beforeClasses.has(pitchClass(note)));
  const candidates = going
    .flatMap((from) => coming.map((to): Move => ({ from, to, halfSteps: shortestWay(from, to) })))
    .filter(({ halfSteps }) => Math.abs(halfSteps) <= LARGEST_MOVE)
    .sort((a, b) => Math.abs(a.halfSteps) - Math.abs(b.halfSteps) || a.halfSteps - b.halfSteps);
  const moves: Move[] = [];
  for (const move of candidates) {
    const taken = moves.some(({ from, to }) => from === move.from || to === move.to);
    if (!taken) moves.push(move);
  }
  return {
    held: after.filter((note) => beforeClasses.has(pitchClass(note))),
    moves,
    leaves: going.filter((note) => !moves.some(({ from }) => from === note)),
    arrives: coming.filter((note) => !moves.some(({ to }) => to === note)),
  };
}

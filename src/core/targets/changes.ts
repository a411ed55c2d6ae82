/**
 * A change in words, as a teacher says it: what falls, rises or stays to name the coming chord, and where
 * to land. One function for the screens, for paper and for the ear.
 */
import { type Chord, chordNotes } from '../chords/chords';
import { cross, type Crossing, type Move, shortestWay } from '../crossings/crossing';
import { toneName } from '../lenses/assess';
import { type Place, placeWords, samePlace } from '../neck/neck';
import { type Note, noteName, pitchClass, transpose } from '../notes/notes';
import { list } from '../words';
import { spokenSize } from './sentences';

/** One thing that happens: "Ab falls a half step to" and what it comes to, "G, its third". */
interface Clause {
  readonly text: string;
  readonly goal: string;
}

/** A change of chords in words. */
export interface SaidChange {
  /** The target first, then what else names the coming chord: two clauses at the most. */
  readonly clauses: readonly Clause[];
  /** "Land on string 2, fret 8."; null where no target is known. */
  readonly landing: string | null;
}

/** Where to land, and where the hand is before it, where that is known. */
export interface Landing {
  readonly target: (Place & { readonly note: Note }) | null;
  readonly from?: Place | null;
}

const CLAUSES = 2;
/** After the moves, which rank by their half steps. */
const [NEW, HELD] = [3, 4] as const;

/** The step into a note from the nearest of some others, though that one holds or goes elsewhere too. */
function nearest(notes: readonly Note[], to: Note): Move | undefined {
  return notes
    .map((from): Move => ({ from, to, halfSteps: shortestWay(from, to) }))
    .filter(({ halfSteps }) => Math.abs(halfSteps) <= 2)
    .toSorted((a, b) => Math.abs(a.halfSteps) - Math.abs(b.halfSteps))[0];
}

/**
 * Says the change from one chord to another by their chord tones. Guide tones are said first, of these what
 * moves by a half step; where a chord has none, its root.
 */
export function sayChange(now: Chord, next: Chord, { target, from }: Landing): SaidChange {
  const { held, moves } = cross(chordNotes(now), chordNotes(next));
  const same = (one: Note) => (other: Note) => pitchClass(one) === pitchClass(other);
  const its = (note: Note) => `its ${toneName(next, note)}`;
  const tellOf = (note: Note): Clause & { readonly rank: number } => {
    const before = held.some(same(note)) ? chordNotes(now).find(same(note)) : undefined;
    if (before !== undefined) {
      const goes = toneName(now, before) === toneName(next, note);
      const text = `${noteName(before)} ${goes ? 'stays' : 'stays and becomes'}`;
      const respelled = before === note ? '' : `, ${noteName(note)}`;
      return { text, goal: its(note) + respelled, rank: HELD };
    }
    const move = moves.find(({ to }) => same(note)(to)) ?? nearest(chordNotes(now), note);
    const goal = `${noteName(note)}, ${its(note)}`;
    if (!move) return { text: 'New:', goal, rank: NEW };
    const verb = move.halfSteps > 0 ? 'rises' : 'falls';
    const text = `${noteName(move.from)} ${verb} ${spokenSize(move.halfSteps)} to`;
    return { text, goal, rank: Math.abs(move.halfSteps) };
  };
  const naming =
    next.quality.guideTones.length > 0
      ? next.quality.guideTones.map((tone) => transpose(next.root, tone))
      : [next.root];
  const aimed = target ? chordNotes(next).find(same(target.note)) : undefined;
  const others = naming
    .filter((note) => aimed === undefined || !same(aimed)(note))
    .map(tellOf)
    .toSorted((a, b) => a.rank - b.rank);
  const clauses = [...(aimed === undefined ? [] : [tellOf(aimed)]), ...others]
    .slice(0, CLAUSES)
    .map(({ text, goal }) => ({ text, goal }));
  return { clauses, landing: target && landingOf(next, target, aimed !== undefined, from ?? null) };
}

function landingOf(
  chord: Chord,
  target: Place & { readonly note: Note },
  named: boolean,
  from: Place | null,
): string {
  const verb = from && samePlace(from, target) ? 'Stay' : 'Land';
  const place = placeWords(target);
  // What is no chord tone was not named before.
  return named
    ? `${verb} on ${place}.`
    : `${verb} on ${noteName(target.note)}, its ${toneName(chord, target.note)}: ${place}.`;
}

/** All of it as one text, for the ear and for paper. */
export const changeSentence = ({ clauses, landing }: SaidChange): string =>
  [...clauses.map(({ text, goal }) => `${text} ${goal}.`), ...(landing ? [landing] : [])].join(' ');

/** Every step of a crossing in words, what moves first: "F falls a half step to E." */
export const changeSteps = ({ held, moves, leaves, arrives }: Crossing): readonly string[] => [
  ...moves.map(
    ({ from, to, halfSteps }) =>
      `${noteName(from)} ${halfSteps > 0 ? 'rises' : 'falls'} ${spokenSize(halfSteps)} to ${noteName(to)}.`,
  ),
  ...(held.length > 0
    ? [`${list(held.map(noteName))} ${held.length === 1 ? 'stays' : 'stay'}.`]
    : []),
  ...(leaves.length > 0
    ? [`${list(leaves.map(noteName))} ${leaves.length === 1 ? 'goes' : 'go'}.`]
    : []),
  ...(arrives.length > 0
    ? [`${list(arrives.map(noteName))} ${arrives.length === 1 ? 'is' : 'are'} new.`]
    : []),
];

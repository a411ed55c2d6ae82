/** Showing only some of the notes: one degree of every chord, or two. */
import { type Chord, chordNotes } from '../chords/chords';
import { degreeOver } from '../chords/over';
import { type Note, pitchClass, step } from '../notes/notes';
import type { Mark, Tone } from './marks';

/** The degrees that may be shown alone, as the field numbers them: tensions above the octave. */
export const DEGREES = ['1', '3', '5', '7', '9', '11', '13'] as const;
export type DegreeName = (typeof DEGREES)[number];

/** Steps above the root: 0 for the root, 2 for every third, minor or major. */
const stepsOf = (degree: DegreeName): number => (Number(degree) - 1) % 7;

/** Whether a note is a degree of a chord, in whatever size. */
const isDegree = (chord: Chord, note: Note, degree: DegreeName): boolean =>
  step(degreeOver(chord, note)) === stepsOf(degree);

/** What is chosen over a chord, with the chord's own tones of some degrees where the choice lacks them. */
export function withDegrees(
  chord: Chord,
  notes: readonly Note[],
  degrees: readonly DegreeName[],
): readonly Note[] {
  const own = chordNotes({ ...chord, bass: null }).filter((note) =>
    degrees.some((degree) => isDegree(chord, note, degree)),
  );
  const there = new Set(notes.map(pitchClass));
  return [...notes, ...own.filter((note) => !there.has(pitchClass(note)))];
}

/** Only the marks that are some degrees of the chord now or of the next, and only as those. */
export function onlyDegrees(
  marks: readonly Mark[],
  degrees: readonly DegreeName[],
): readonly Mark[] {
  const steps = new Set(degrees.map(stepsOf));
  const kept = (tone: Tone | null) => (tone && steps.has(step(tone.degree)) ? tone : null);
  return marks
    .map((mark): Mark => ({ ...mark, now: kept(mark.now), next: kept(mark.next) }))
    .filter(({ now, next }) => now !== null || next !== null);
}

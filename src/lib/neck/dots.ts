/** Notes of a shape as they are drawn on a small neck. */
import type { Chord } from '$core/chords/chords';
import { degreeOver } from '$core/chords/chords';
import { sounds } from '$core/chords/qualities';
import type { Placed } from '$core/neck/fingering';
import type { Place } from '$core/neck/neck';
import { halfSteps, type Interval } from '$core/notes/notes';
import { showDegree, showNote } from '$lib/ui/glyphs';

export interface Dot extends Place {
  readonly text: string;
  readonly weight: 'definer' | 'chord' | 'colour' | 'ground';
  /** Marked as the note that has just moved. */
  readonly changed?: boolean;
}

export type DotLabels = 'degree' | 'name';

/** What a note is over a chord, in weight. */
export function weightOver(chord: Chord, degree: Interval): 'definer' | 'chord' | 'colour' {
  const size = halfSteps(degree);
  if (chord.quality.definers.some((definer) => halfSteps(definer) === size)) return 'definer';
  return sounds(chord.quality, degree) ? 'chord' : 'colour';
}

/** A shape's notes over a chord, labelled by degree or by name. */
export const dotsOver = (
  chord: Chord,
  places: readonly Placed[],
  labels: DotLabels,
  moved: Interval | null = null,
): readonly Dot[] =>
  places.map(({ string, fret, note }) => {
    const degree = degreeOver(chord, note);
    return {
      string,
      fret,
      text: labels === 'name' ? showNote(note) : showDegree(degree),
      weight: weightOver(chord, degree),
      changed: moved !== null && halfSteps(degree) === halfSteps(moved),
    };
  });

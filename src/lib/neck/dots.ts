/** Notes of a shape as they are drawn on a small neck. */
import { type Chord, degreeOver } from '$core/chords/chords';
import { sounds } from '$core/chords/qualities';
import { fingerShape, type Placed } from '$core/neck/fingering';
import type { Place } from '$core/neck/neck';
import { halfSteps, type Interval } from '$core/notes/notes';
import { showDegree, showNote } from '$lib/ui/glyphs';

export interface Dot extends Place {
  readonly text: string;
  /** `blue` for a blue note, which bends the shape it lies in. */
  readonly weight: 'definer' | 'chord' | 'colour' | 'blue';
  /** Marked as the note that has just moved. */
  readonly changed?: boolean;
}

export const DOT_LABELS = ['degree', 'name', 'finger'] as const;
export type DotLabels = (typeof DOT_LABELS)[number];

export const DOT_LABEL_NAMES: Readonly<Record<DotLabels, string>> = {
  degree: 'Degrees',
  name: 'Names',
  finger: 'Fingers',
};

/** What a note is over a chord, in weight. */
export function weightOver(chord: Chord, degree: Interval): 'definer' | 'chord' | 'colour' {
  const size = halfSteps(degree);
  if (chord.quality.definers.some((definer) => halfSteps(definer) === size)) return 'definer';
  return sounds(chord.quality, degree) ? 'chord' : 'colour';
}

/** What is drawn of a shape besides its notes. */
export interface DotOptions {
  readonly labels: DotLabels;
  /** The degree that has just moved. */
  readonly moved?: Interval | null;
  readonly blue?: readonly Placed[];
}

/** A shape's notes over a chord, labelled by degree, by name or by finger. */
export function dotsOver(
  chord: Chord,
  places: readonly Placed[],
  { labels, moved = null, blue = [] }: DotOptions,
): readonly Dot[] {
  const shape = fingerShape(places, chord.root).map(({ finger, ...place }) => ({
    ...place,
    text: String(finger),
    weight: weightOver(chord, place.degree),
  }));
  const bends = blue.map((place) => ({
    ...place,
    degree: degreeOver(chord, place.note),
    text: '',
    weight: 'blue' as const,
  }));
  return [...shape, ...bends].map(({ string, fret, note, degree, text, weight }) => ({
    string,
    fret,
    weight,
    text: labels === 'finger' ? text : labels === 'name' ? showNote(note) : showDegree(degree),
    changed: moved !== null && halfSteps(degree) === halfSteps(moved),
  }));
}

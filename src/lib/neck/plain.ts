/** Notes of a shape as plain marks, labelled by degree, by name or by finger. */
import { degreeOver, readOver, weightOver } from '$core/chords/over';
import type { Chord } from 'corvel-core';
import { fingerShape, type Placed } from '$core/neck/fingering';
import { halfSteps, type Interval } from '$core/notes/notes';
import { placeId } from '$core/neck/neck';
import type { DrawnMark } from './drawn';
import { showNote, showOver } from '$lib/ui/glyphs';

export const PLAIN_LABELS = ['degree', 'name', 'finger'] as const;
export type PlainLabels = (typeof PLAIN_LABELS)[number];

export const PLAIN_LABEL_NAMES: Readonly<Record<PlainLabels, string>> = {
  degree: 'Degrees',
  name: 'Names',
  finger: 'Fingers',
};

/** What is drawn of a shape besides its notes. */
interface PlainOptions {
  readonly labels: PlainLabels;
  /** The degree that has just moved. */
  readonly moved?: Interval | null;
  readonly blue?: readonly Placed[];
  /** What lies under the same hand besides, drawn small and unlabelled. */
  readonly ground?: readonly Placed[];
}

/** A shape's notes over a chord. */
export function plainMarks(
  chord: Chord,
  places: readonly Placed[],
  { labels, moved = null, blue = [], ground = [] }: PlainOptions,
): readonly DrawnMark[] {
  // Read together: what stands beside a minor third says whether it is a sharp ninth.
  const degrees = new Map(
    readOver(
      chord,
      places.map(({ note }) => note),
    ).map(({ note, degree }) => [note, degree]),
  );
  const mark = (place: Placed, finger: string, bends: boolean): DrawnMark => {
    const { string, fret, note } = place;
    const degree = degrees.get(note) ?? degreeOver(chord, note);
    const name = labels === 'name' ? showNote(note) : showOver(chord, degree);
    return {
      kind: 'plain',
      string,
      fret,
      label: labels === 'finger' ? finger : name,
      weight: bends ? 'blue' : weightOver(chord, degree),
      changed: moved !== null && halfSteps(degree) === halfSteps(moved),
    };
  };
  const taken = new Set(places.map(placeId));
  const around = new Map(
    ground.filter((place) => !taken.has(placeId(place))).map((place) => [placeId(place), place]),
  );
  return [
    ...[...around.values()].map(({ string, fret, note }): DrawnMark => ({
      kind: 'ground',
      string,
      fret,
      label: '',
      weight: weightOver(chord, degreeOver(chord, note)),
    })),
    ...fingerShape(places, chord.root).map(({ finger, ...place }) =>
      mark(place, String(finger), false),
    ),
    ...blue.map((place) => mark(place, '', true)),
  ];
}

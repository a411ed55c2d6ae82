/**
 * A motif: a small rhythm and a contour, the idea a line is made of. It says nothing of pitch, so
 * it can be repeated over another chord, moved, turned over or cut (Schoenberg, "Fundamentals of
 * Musical Composition", 1967, ch. III).
 */
import { at, range } from '../lists';
import { type Neck, pitchAt } from '../neck/neck';
import type { PlayedNote } from '../phrases/passage';
import { BEAT, type Beats } from '../time/units';
import { type Chance, drawn, oneOf } from './chance';
import { type LineMetre, rhythmIn } from './rhythm';
import type { StyleRow } from './styles';

/** A rhythm and a contour that a line comes back to. */
export interface Motif {
  /** When each note begins, counted from the first; 3 to 7 of them. */
  readonly onsets: readonly Beats[];
  /** How long the last note lasts. */
  readonly last: Beats;
  /** From each note to the next, in steps of whatever is played. */
  readonly steps: readonly number[];
}

/** Notes of a motif at the least and at the most. */
const MOTIF_NOTES = { least: 3, most: 7 } as const;

/**
 * Contours to choose from, in steps: none goes to and fro between two notes, and each turns at
 * least once so that it is known again when it comes back.
 */
const CONTOURS = [
  [1, -2, -1, 3, -1, -1],
  [2, -1, -1, 2, -1, -1],
  [-1, 2, 1, -2, -1, 2],
  [2, -1, 2, -1, -1, -2],
  [-2, 1, 1, -2, -1, 3],
  [1, 1, -2, 3, -1, -1],
  [-1, -1, 3, -1, -1, 2],
  [3, -1, -1, 2, 1, -1],
  [-3, 1, 1, -2, 1, 1],
  [-2, 1, -2, 1, 3, -1],
  [1, 2, -1, -2, 1, 1],
  [2, 1, -2, 1, 1, -3],
] as const;

/** A motif drawn by chance from the cells of a style, beginning so far from the beat. */
export function drawMotif(metre: LineMetre, style: StyleRow, entry: Beats, chance: Chance): Motif {
  const wanted = MOTIF_NOTES.least + Math.floor(chance() * 4);
  const from = entry + metre.bar;
  const first = { struck: [from], silent: [] };
  // A motif may be cut anywhere: none of its triplets would lack a note.
  const even = { ...metre, triplets: false };
  const times = rhythmIn(even, style, from, from + metre.bar, 0.75, first, chance).slice(0, wanted);
  const onsets = times.map((beat) => beat - from);
  const contour = oneOf(CONTOURS, chance);
  const turned = drawn(chance, 0.5) ? -1 : 1;
  const steps = range(0, Math.max(0, onsets.length - 1)).map((index) =>
    // A hook stays on its note now and then.
    drawn(chance, style.sizes.again) ? 0 : turned * at(contour, index),
  );
  return { onsets, last: metre.slot, steps };
}

/**
 * Turned over: what rose falls.
 *
 * @example invertMotif({ onsets: [0, BEAT], last: BEAT, steps: [2] }).steps; // [-2]
 */
export const invertMotif = (motif: Motif): Motif => ({
  ...motif,
  steps: motif.steps.map((step) => -step),
});

/** Its first notes alone. */
export const fragmentOf = (motif: Motif): Motif => {
  const kept = Math.max(MOTIF_NOTES.least, Math.ceil(motif.onsets.length / 2));
  return { ...motif, onsets: motif.onsets.slice(0, kept), steps: motif.steps.slice(0, kept - 1) };
};

/** Half steps of one step of a scale, on the average. */
const HALF_STEPS_A_STEP = 12 / 7;

/** The motif of notes already played: the first phrase of them, seven notes at the most. */
export function motifOf(neck: Neck, notes: readonly PlayedNote[]): Motif | null {
  const single = notes.filter(({ beat }, index) => index === 0 || beat > at(notes, index - 1).beat);
  const gap = single.findIndex(
    ({ beat, beats }, index) =>
      index >= MOTIF_NOTES.least - 1 &&
      (single[index + 1]?.beat ?? Infinity) >= beat + beats + BEAT / 2,
  );
  const head = single.slice(0, Math.min(MOTIF_NOTES.most, gap < 0 ? MOTIF_NOTES.most : gap + 1));
  const [first] = head;
  const last = head.at(-1);
  if (!first || !last || head.length < MOTIF_NOTES.least) return null;
  return {
    onsets: head.map(({ beat }) => beat - first.beat),
    last: last.beats,
    steps: head.slice(1).map((note, index) => {
      const size = pitchAt(neck, note) - pitchAt(neck, at(head, index));
      const steps = Math.round(size / HALF_STEPS_A_STEP);
      return size === 0 ? 0 : steps === 0 ? Math.sign(size) : steps;
    }),
  };
}

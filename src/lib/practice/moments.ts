/** What of a passage sounds at a beat, and what comes next. */
import type { Passage, PlayedNote } from '$core/phrases/passage';
import type { Beats } from '$core/time/units';

/** Beats closer than this are one moment. */
const NEAR = 1e-6;

/** The notes sounding at a beat; none where nothing plays. */
export const soundingAt = ({ notes }: Passage, beat: Beats | null): readonly PlayedNote[] =>
  beat === null
    ? []
    : notes.filter((note) => note.beat <= beat + NEAR && beat < note.beat + note.beats - NEAR);

/** The notes of the next moment after a beat; the first ones before anything plays. */
export function coming({ notes }: Passage, beat: Beats | null): readonly PlayedNote[] {
  const next = notes.find((note) => beat === null || note.beat > beat + NEAR);
  return next ? notes.filter((note) => Math.abs(note.beat - next.beat) < NEAR) : [];
}

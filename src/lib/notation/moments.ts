/** What of a passage sounds at a beat, and what comes next. */
import type { Passage } from 'corvel-core';
import type { PlayedNote } from '$core/phrases/passage';
import type { Beats } from '$core/time/units';

/** The notes sounding at a beat; none where nothing plays. */
export const soundingAt = ({ notes }: Passage, beat: Beats | null): readonly PlayedNote[] =>
  beat === null ? [] : notes.filter((note) => note.beat <= beat && beat < note.beat + note.beats);

/** The notes of the next moment after a beat; the first ones before anything plays. */
export function coming({ notes }: Passage, beat: Beats | null): readonly PlayedNote[] {
  const next = notes.find((note) => beat === null || note.beat > beat);
  return next ? notes.filter((note) => note.beat === next.beat) : [];
}

/**
 * The moments of a passage at which what sounds changes, in order: beats to look up with
 * {@link momentAt}, so that nothing is drawn anew between two of them.
 */
export function momentsOf({ notes }: Passage): readonly Beats[] {
  const beats = notes.flatMap(({ beat, beats: length }) => [beat, beat + length]);
  const sorted = beats.toSorted((a, b) => a - b);
  return sorted.filter((beat, index) => beat !== sorted[index - 1]);
}

/** The last moment at or before a beat; null before the first and where nothing plays. */
export function momentAt(moments: readonly Beats[], beat: Beats | null): Beats | null {
  if (beat === null) return null;
  let low = 0;
  let high = moments.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((moments[middle] ?? Infinity) <= beat) low = middle + 1;
    else high = middle;
  }
  return moments[low - 1] ?? null;
}

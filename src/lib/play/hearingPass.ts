/** Which notes belong to a pass of the stage, and how far it was heard. */
import { BEAT, type HeardAt } from 'corvel-core';
import type { HeardNote } from '$core/listening/notes';
import type { TakenNote } from '$core/listening/take';
import type { Beats } from '$core/time/units';
import type { Pass } from '$lib/stage/course';

/** A note in time from the beginning of a pass. */
type Timed = HeardNote & { readonly beat: Beats; readonly beats: Beats };

/** How long before a pass a note may belong to it: to answer its first target, and to be of what was played. */
const EARLY = { answers: BEAT, played: BEAT / 4 } as const;

/** How near a beat of the count a click that is heard falls. */
const ON_BEAT: Beats = (15 * BEAT) / 100;
/** A pass is judged anew so often while it sounds. */
const HALF: Beats = BEAT / 2;

const between = (notes: readonly Timed[], from: Beats, to: Beats) =>
  notes.filter(({ beat }) => beat >= from && beat < to);

/** What may answer the targets of a pass: at the pitch it was bent to. */
export const aroundPass = (
  notes: readonly Timed[],
  { beats }: Pick<Pass, 'beats'>,
): readonly HeardAt[] =>
  between(notes, -EARLY.answers, beats + EARLY.answers).map(({ bent, ...note }) => ({
    ...note,
    midi: note.midi + Math.round(bent),
  }));

/** What was played in a pass, in time of the chart. */
export const takenIn = (
  notes: readonly Timed[],
  { start, beats }: Pick<Pass, 'start' | 'beats'>,
): readonly TakenNote[] =>
  between(notes, -EARLY.played, beats - EARLY.played).map((note) => ({
    ...note,
    beat: start + Math.max(0, note.beat),
  }));

/** Whether a stroke falls on a beat of the count, before the first of the music. */
export const isOfCount = (beat: Beats): boolean =>
  beat < -ON_BEAT && Math.abs(beat - Math.round(beat / BEAT) * BEAT) < ON_BEAT;

/**
 * How far into a pass the music is and the ear has come: on a busy machine it listens later than it sounds. By half
 * beats: nothing is worked out between them.
 */
export const heardUpTo = (sounding: Beats, listened: Beats): Beats =>
  Math.floor(Math.min(sounding, listened) / HALF) * HALF;

/** Whether all of the pass before one was heard: what hearing takes is over, or half of a short pass. */
export const isHeardOut = ({ beats }: Pick<Pass, 'beats'>, upTo: Beats, behind: Beats): boolean =>
  upTo >= Math.min(behind, beats / 2);

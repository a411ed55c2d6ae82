/** Notes as they are heard, and what still sounds as one. */
import type { HeardNote, Sounding } from '$core/listening/notes';
import type { Seconds } from '$core/time/units';

/** A note at a second of the context's clock, the way there and back taken off. */
export interface NoteHeard extends HeardNote {
  readonly at: Seconds;
}

export type SoundingAt = Sounding & { readonly at: Seconds };

/** The shortest that a note which still sounds is taken for. */
const SHORTEST: Seconds = 0.05;

/** What sounds now as a note, up to now. */
export function asNote({ at, pitch, seconds, clarity }: SoundingAt, now: Seconds): NoteHeard {
  const midi = Math.round(pitch);
  const cents = Math.round(100 * (pitch - midi));
  const length = Math.max(SHORTEST, now - at);
  return { at, seconds, length, midi, cents, clarity, bent: 0, from: 'pick' };
}

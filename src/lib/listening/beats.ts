/** What was heard, by the beats of what plays. */
import type { Beats, Seconds } from '$core/time/units';
import type { Transport } from '$lib/audio/transport.svelte';

/** A note at a second of the clock. */
interface Timed {
  readonly at: Seconds;
  readonly length: Seconds;
}

/** Notes with their beats from a beat on, counted through all passes; none where nothing plays. */
export function onBeats<N extends Timed>(
  transport: Pick<Transport, 'beatAt'>,
  notes: readonly N[],
  zero: Beats,
): readonly (N & { readonly beat: Beats; readonly beats: Beats })[] {
  return notes.flatMap((note) => {
    const begins = transport.beatAt(note.at);
    const ends = transport.beatAt(note.at + note.length);
    return begins === null || ends === null
      ? []
      : [{ ...note, beat: begins - zero, beats: ends - begins }];
  });
}

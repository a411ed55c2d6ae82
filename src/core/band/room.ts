/** The room a comping leaves to who plays over the band, and what is heard of it. */
import { BEAT, type Beats } from '../time/units';
import type { Room, Solo } from './events';

/** A breath that the band may answer: so long after what was played, and so long before it goes on. */
const BREATH = { after: BEAT / 4, before: (3 * BEAT) / 4 } as const;

/** A stretch of a line. */
interface Sung {
  readonly beat: Beats;
  readonly beats: Beats;
}

/**
 * What a line does at a beat; null where there is none.
 *
 * @example soloIn([{ beat: 0, beats: BEAT }], 3 * BEAT); // "resting"
 */
export function soloIn(line: readonly Sung[], beat: Beats): Solo | null {
  if (line.length === 0) return null;
  const busy = line.some(
    (note) => note.beat - BREATH.before < beat && note.beat + note.beats + BREATH.after > beat,
  );
  return busy ? 'playing' : 'resting';
}

/**
 * Whether a stroke is played, by what is done over it: where nobody plays there is nothing to answer.
 *
 * @example isPlayed('left', 'playing'); // false
 */
export const isPlayed = (room: Room | undefined, solo: Solo | null): boolean =>
  room === undefined || (room === 'left' ? solo !== 'playing' : solo === 'resting');

/** What a band plays under a line that is known, both as written or both as they sound. */
export const bandUnder = <E extends { readonly beat: Beats; readonly room?: Room }>(
  band: readonly E[],
  line: readonly Sung[],
): readonly E[] => band.filter(({ beat, room }) => isPlayed(room, soloIn(line, beat)));

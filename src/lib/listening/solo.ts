/** What a listener hears of the player, for a band that leaves him room and answers. */
import type { Solo } from '$core/band/events';
import type { Seconds } from '$core/time/units';
import type { Ear } from './ear.svelte';

/** After so long without a note he rests; after so long he does not play any more. */
const RESTS: Seconds = 0.6;
const GONE: Seconds = 8;

/** Whether the player plays or rests; null where nobody listens, or he has not played for a while. */
export function soloHeard({
  state,
  sounding,
  notes,
  now,
}: Pick<Ear, 'state' | 'now'> & {
  readonly sounding: object | null;
  readonly notes: readonly { readonly at: Seconds; readonly length: Seconds }[];
}): Solo | null {
  if (state !== 'hearing') return null;
  if (sounding) return 'playing';
  const last = notes.at(-1);
  if (!last) return null;
  const since = now() - last.at - last.length;
  return since < RESTS ? 'playing' : since < GONE ? 'resting' : null;
}

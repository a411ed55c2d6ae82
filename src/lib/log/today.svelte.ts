/** Minutes played today, shown on every screen: looked up once, and again when the log is written. */
import * as z from 'zod/mini';
import { dayOf } from '$core/time/moments';
import { reached } from '$lib/ui/server';
import { localMoment } from './messages';

const answer = z.array(z.object({ minutes: z.number() }));

let minutes = $state<number | null>(null);

/** Asks what was played since midnight, as the player's clock says it. */
export async function lookUpToday(): Promise<void> {
  const midnight = Date.parse(`${dayOf(localMoment())}T00:00:00${localMoment().slice(-6)}`);
  const response = await reached(`/api/stints?since=${midnight}`, 'GET');
  if (!response?.ok) return;
  const read = answer.safeParse(await response.json().catch(() => null));
  if (read.success) minutes = read.data.reduce((sum, one) => sum + one.minutes, 0);
}

export const today = {
  /** Null until it is known. */
  get minutes() {
    return minutes;
  },
};

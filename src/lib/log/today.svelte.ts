/** Minutes played today, shown on every screen: looked up once, and again when the log is written. */
import * as z from 'zod/mini';
import { dayOf } from '$core/time/moments';
import { onKept } from '$lib/kept/acknowledged';
import { reached } from '$lib/ui/server';
import { localMoment } from './messages';

/** Where the log is. */
export const STINTS = '/api/stints';

const answer = z.array(z.object({ minutes: z.number() }));

let minutes = $state<number | null>(null);
let changes = $state(0);

/** Asks what was played since midnight, as the player's clock says it. */
export async function lookUpToday(): Promise<void> {
  const midnight = Date.parse(`${dayOf(localMoment())}T00:00:00${localMoment().slice(-6)}`);
  const response = await reached(`${STINTS}?since=${midnight}`, 'GET');
  if (!response?.ok) return;
  const read = answer.safeParse(await response.json().catch(() => null));
  if (read.success) minutes = read.data.reduce((sum, one) => sum + one.minutes, 0);
}

/** Says that the log has been written: what was played today is looked up anew. */
export function logWritten(): void {
  changes += 1;
  void lookUpToday();
}

onKept(STINTS, logWritten);

export const today = {
  /** How often the log was written from this page. */
  get changes() {
    return changes;
  },
  /** Null until it is known. */
  get minutes() {
    return minutes;
  },
};

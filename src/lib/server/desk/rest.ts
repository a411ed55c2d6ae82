/** How work on the whole book leaves the machine to who saves meanwhile. */
import { setTimeout as sleep } from 'node:timers/promises';

/** Milliseconds of work after which it rests, and the longest rest. */
const WORKS = 5;
const LONGEST = 40;

let since = performance.now();

/** Rests for as long as was worked since the last rest, where that was long enough. */
export async function rest(): Promise<void> {
  const worked = performance.now() - since;
  if (worked < WORKS) return;
  await sleep(Math.min(worked, LONGEST));
  since = performance.now();
}

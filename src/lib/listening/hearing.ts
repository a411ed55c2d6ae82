/** What the page and the worker that listens say to each other. */
import { type Remote, wrap } from 'comlink';
import type { HeardNote, Sounding } from '$core/listening/notes';
import type { Seconds } from '$core/time/units';
import type { HearingWorker } from './hearing.worker';

export interface Hearing {
  /** Notes that have ended since, and what sounds now; times in seconds since it began. */
  readonly notes: readonly HeardNote[];
  readonly sounding: Sounding | null;
  /** The last time a string was struck, or anything clicked. */
  readonly struck: Seconds | null;
  /** The loudest sample, 0 to 1. */
  readonly peak: number;
}

/** A worker that listens, and how it is asked. */
export function openHearing(): { readonly worker: Worker; readonly remote: Remote<HearingWorker> } {
  const worker = new Worker(new URL('./hearing.worker.ts', import.meta.url), { type: 'module' });
  return { worker, remote: wrap<HearingWorker>(worker) };
}

/** The page's side of the targets' worker: one request at a time, a newer one ends the older. */
import { proxy, type Remote, wrap } from 'comlink';
import type { Exercise, ExerciseRequest } from '$core/exercises/exercises';
import type { Route, RouteRequest } from '$core/targets/route';
import type { TargetsWorker } from './targets.worker';

/** Share of the work done, not told more often than the page can show. */
export type OnProgress = (share: number) => void;

export function createTargetsWorker() {
  let worker: Worker | null = null;
  let remote: Remote<TargetsWorker> | null = null;
  let busy = 0;

  function open(): Remote<TargetsWorker> {
    if (worker === null || remote === null) {
      worker = new Worker(new URL('./targets.worker.ts', import.meta.url), { type: 'module' });
      remote = wrap<TargetsWorker>(worker);
    }
    return remote;
  }

  /** Ends what is under way; the next request begins afresh. */
  function cancel() {
    worker?.terminate();
    worker = null;
    remote = null;
    busy = 0;
  }

  async function only<T>(ask: (open: Remote<TargetsWorker>) => Promise<T>): Promise<T> {
    // A worker cannot be interrupted: what it is still at is no longer wanted.
    if (busy > 0) cancel();
    busy += 1;
    const asked = open();
    const answer = await ask(asked);
    if (asked === remote) busy = 0;
    return answer;
  }

  return {
    cancel,
    /** Never answers where a newer request has come since. */
    routes: (request: RouteRequest, onProgress: OnProgress): Promise<readonly Route[]> =>
      only((asked) => asked.routes(request, proxy(onProgress))),
    exercise: (request: ExerciseRequest): Promise<Exercise> =>
      only((asked) => asked.exercise(request)),
  };
}

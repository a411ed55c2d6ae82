/** Calls to a worker: one at a time for each caller, a newer one ends the older. */
import type { Remote } from 'comlink';
import type { Computations } from './compute.worker';

/** Share of the work done, from 0 to 1. */
type OnProgress = (share: number) => void;

export type Computation = Exclude<keyof Computations, 'ready'>;
export type RequestOf<K extends Computation> = Parameters<Computations[K]>[0];
export type AnswerOf<K extends Computation> = Awaited<ReturnType<Computations[K]>>;

/** Why a call has no answer: a newer one took its place, or it was called off. */
export class CancelledError extends Error {
  override name = 'CancelledError';
}

/** Why a call has no answer: it took longer than its caller waits. */
export class LateError extends Error {
  override name = 'LateError';
}

/** Why a call has no answer: its worker could not be loaded, which is no fault of the question. */
export class LoadError extends Error {
  override name = 'LoadError';
}

/** Milliseconds that a worker may take to load. */
const LOADING = 30_000;

interface Caller<K extends Computation> {
  /** The answer; rejects with a {@link CancelledError}, or with what went wrong in the worker. */
  readonly ask: (request: RequestOf<K>, onProgress?: OnProgress) => Promise<AnswerOf<K>>;
  readonly cancel: () => void;
  /** Lets the worker go; another is opened when it is asked again. */
  readonly close: () => void;
}

type OpenWorker = () => Worker;

const openCompute: OpenWorker = () =>
  new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });

/** A caller of one computation with a worker of its own, opened when first asked. */
export function createCaller<K extends Computation>(
  name: K,
  open: OpenWorker = openCompute,
  /** Milliseconds after which a call is given up, from when its worker is loaded. */
  deadline = Infinity,
): Caller<K> {
  let worker: Worker | null = null;
  let remote: Remote<Computations> | null = null;
  let fail: ((reason: Error) => void) | null = null;

  function close() {
    worker?.terminate();
    worker = null;
    remote = null;
  }

  /** Ends what is under way; a worker cannot be interrupted otherwise. */
  function cancel() {
    if (!fail) return;
    const refuse = fail;
    fail = null;
    close();
    refuse(new CancelledError('A newer request took its place.'));
  }

  /** Opens the worker where it is not open, and asks it once it is loaded. */
  async function answered(
    request: RequestOf<K>,
    onProgress: OnProgress,
    onfail: (error: Error) => void,
    onloaded: () => void,
  ): Promise<AnswerOf<K>> {
    const mine = (worker ??= open());
    mine.onerror = (event) => {
      close();
      onfail(new LoadError(event.message || 'The worker could not be started.'));
    };
    // It comes with the first question: the first view of a page needs none.
    const { proxy, wrap } = await import('comlink');
    if (worker !== mine) throw new CancelledError('A newer request took its place.');
    const asked = (remote ??= wrap<Computations>(mine));
    await asked.ready();
    onloaded();
    // Each computation takes its own request; TypeScript cannot follow the name through.
    const call = asked[name] as unknown as (
      request: RequestOf<K>,
      onProgress: OnProgress,
    ) => Promise<AnswerOf<K>>;
    return call(request, proxy(onProgress));
  }

  return {
    cancel,
    close,
    ask(request, onProgress = () => undefined) {
      cancel();
      return new Promise<AnswerOf<K>>((resolve, reject) => {
        fail = reject;
        const settle = (act: () => void) => {
          clearTimeout(timer);
          // What was cancelled has been settled already.
          if (fail !== reject) return;
          fail = null;
          act();
        };
        const refuse = (error: unknown) => {
          settle(() => {
            reject(error instanceof Error ? error : new Error(String(error)));
          });
        };
        const giveUpAfter = (milliseconds: number, reason: Error) =>
          setTimeout(() => {
            // The worker that is open is another call's by now where this one was cancelled.
            if (fail !== reject) return;
            close();
            refuse(reason);
          }, milliseconds);
        let timer = giveUpAfter(LOADING, new LoadError('The worker took too long to load.'));
        const begun = () => {
          clearTimeout(timer);
          if (deadline !== Infinity)
            timer = giveUpAfter(deadline, new LateError('This took too long.'));
        };
        answered(request, onProgress, refuse, begun).then((answer) => {
          settle(() => {
            resolve(answer);
          });
        }, refuse);
      });
    },
  };
}

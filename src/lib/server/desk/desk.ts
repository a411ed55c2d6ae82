/** Work on the whole book away from the thread that serves everyone: one job at a time, others wait. */
import { Worker } from 'node:worker_threads';
import { databaseFolder, dataFolder } from '../folder';
import { type ProblemKind, StoreProblem } from '../problems';
import { type DeskJob, type Places, type Told, work } from './jobs';

/** What a thread answers when it is asked for more. */
export type Piece =
  | { readonly kind: 'told'; readonly told: Told }
  | { readonly kind: 'done' }
  | { readonly kind: 'failed'; readonly problem: ProblemKind | null; readonly reason: string };

/** A job could not be done for want of memory. */
export class TooLarge extends Error {}

const MEGABYTES = 320;

/** The same in a thread of its own. */
async function* inThread(script: string, places: Places, job: DeskJob): AsyncGenerator<Told> {
  const thread = new Worker(script, {
    workerData: { places, job },
    resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
  });
  try {
    for (;;) {
      const piece = await new Promise<Piece>((resolve, reject) => {
        thread.once('message', resolve);
        thread.once('error', (error) => reject(new TooLarge(String(error))));
        thread.postMessage('more');
      });
      thread.removeAllListeners('error');
      if (piece.kind === 'done') return;
      if (piece.kind === 'told') yield piece.told;
      else if (piece.problem) throw new StoreProblem(piece.problem, piece.reason);
      else throw new Error(piece.reason);
    }
  } finally {
    thread.removeAllListeners();
    thread.on('error', () => undefined);
    await thread.terminate();
  }
}

let last: Promise<unknown> = Promise.resolve();

/** Does a job when those before it are done; what is no longer asked for is ended. */
export async function* atDesk(job: DeskJob): AsyncGenerator<Told> {
  const before = last;
  let done: () => void = () => undefined;
  last = new Promise<void>((resolve) => {
    done = resolve;
  });
  await before;
  try {
    const script = process.env['CORVEL_DESK'];
    // While developing there is no script of the thread.
    const places = { database: databaseFolder(), folder: dataFolder() };
    yield* script ? inThread(script, places, job) : work(places, job);
  } finally {
    done();
  }
}

/** The one thing a job tells. */
export async function answerOf(job: DeskJob): Promise<Told | null> {
  for await (const told of atDesk(job)) return told;
  return null;
}

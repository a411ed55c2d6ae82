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

/** A job needs more memory than a thread may have. */
class TooLarge extends Error {}

const MEGABYTES = 320;

/** What the thread says next; fails where it ends without a word. */
const next = (thread: Worker): Promise<Piece> =>
  new Promise((resolve, reject) => {
    const ended = (error: unknown) => {
      const { code } = error as { readonly code?: string };
      reject(code === 'ERR_WORKER_OUT_OF_MEMORY' ? new TooLarge() : new Error(String(error)));
    };
    thread.removeAllListeners();
    thread.once('message', resolve);
    thread.once('error', ended);
    thread.once('exit', ended);
    thread.postMessage('more');
  });

/** The same in a thread of its own. */
async function* inThread(script: string, places: Places, job: DeskJob): AsyncGenerator<Told> {
  const thread = new Worker(script, {
    workerData: { places, job },
    resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
  });
  try {
    for (;;) {
      const piece = await next(thread);
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

const places = (): Places => ({ database: databaseFolder(), folder: dataFolder() });

/** What was begun last, of what only reads and of what changes something. */
const lanes = { reading: Promise.resolve(), changing: Promise.resolve() };

/**
 * Does a job when those before it are done; what is no longer asked for is ended. A download that nobody
 * reads on holds up other downloads, and no backup and no archive that is taken in.
 */
export async function* atDesk(job: DeskJob): AsyncGenerator<Told> {
  const lane = job.kind === 'export' ? 'reading' : 'changing';
  const before = lanes[lane];
  let done: () => void = () => undefined;
  lanes[lane] = new Promise<void>((resolve) => {
    done = resolve;
  });
  await before;
  try {
    const script = process.env['CORVEL_DESK'];
    // While developing there is no script of the thread.
    yield* script ? inThread(script, places(), job) : work(places(), job);
  } finally {
    done();
  }
}

async function firstOf(telling: AsyncGenerator<Told>): Promise<Told | null> {
  for await (const told of telling) return told;
  return null;
}

/** The one thing a job tells. */
export async function answerOf(job: DeskJob): Promise<Told | null> {
  try {
    return await firstOf(atDesk(job));
  } catch (error) {
    if (!(error instanceof TooLarge)) throw error;
    return { kind: 'refused', message: 'This file is too large to be read; nothing was changed.' };
  }
}

/** The same at once and in this thread: at the start, when there is nobody else to be served. */
export const answerHere = (job: DeskJob): Promise<Told | null> => firstOf(work(places(), job));

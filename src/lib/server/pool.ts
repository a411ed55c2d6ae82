/**
 * Threads for work that would hold up everyone else: few, each with a deadline, started when wanted
 * and let go when idle. What waits too long is sent away rather than kept. A thread's first
 * message says that it is loaded, and its deadlines count from there: loading is no fault of the question's.
 */
import { Worker } from 'node:worker_threads';

/** Milliseconds that a thread may take to load. */
const LOADING = 30_000;

export type PoolOutcome<Reply> =
  | { readonly kind: 'done'; readonly reply: Reply }
  /** It took longer than the deadline, or more memory than a thread may have. */
  | { readonly kind: 'late' }
  /** Too much was waiting already. */
  | { readonly kind: 'busy' };

export interface PoolOptions {
  readonly script: string;
  readonly size: number;
  /** Milliseconds that one job may take, unless it is run with another. */
  readonly deadline: number;
  /** Milliseconds that a job may wait for a thread. */
  readonly patience: number;
  /** Milliseconds after which an idle thread is let go. */
  readonly idle: number;
  readonly megabytes: number;
}

interface Waiting<Job, Reply> {
  readonly job: Job;
  readonly deadline: number;
  readonly settle: (outcome: PoolOutcome<Reply>) => void;
}

export interface Pool<Job, Reply> {
  readonly run: (job: Job, deadline?: number) => Promise<PoolOutcome<Reply>>;
  readonly close: () => void;
}

export function createPool<Job, Reply>(options: PoolOptions): Pool<Job, Reply> {
  const waiting: Waiting<Job, Reply>[] = [];
  const resting: { readonly thread: Worker; readonly timer: NodeJS.Timeout }[] = [];
  const threads = new Set<Worker>();
  const loaded = new WeakSet<Worker>();

  function open(): Worker {
    const thread = new Worker(options.script, {
      resourceLimits: { maxOldGenerationSizeMb: options.megabytes, maxYoungGenerationSizeMb: 16 },
    });
    threads.add(thread);
    thread.unref();
    return thread;
  }

  function end(thread: Worker) {
    threads.delete(thread);
    void thread.terminate();
  }

  function rest(thread: Worker) {
    const timer = setTimeout(() => {
      const index = resting.findIndex((one) => one.thread === thread);
      if (index >= 0) resting.splice(index, 1);
      end(thread);
    }, options.idle);
    timer.unref();
    resting.push({ thread, timer });
  }

  function work(thread: Worker, { job, deadline: allowed, settle }: Waiting<Job, Reply>) {
    const finish = (outcome: PoolOutcome<Reply>, usable: boolean) => {
      clearTimeout(deadline);
      thread.off('message', done);
      thread.off('message', begin);
      thread.off('error', broken);
      settle(outcome);
      if (usable) rest(thread);
      else end(thread);
      next();
    };
    const done = (reply: Reply) => {
      finish({ kind: 'done', reply }, true);
    };
    const broken = () => {
      finish({ kind: 'late' }, false);
    };
    const begin = () => {
      clearTimeout(deadline);
      loaded.add(thread);
      deadline = setTimeout(broken, allowed);
      thread.on('message', done);
      thread.postMessage(job);
    };
    let deadline = setTimeout(broken, LOADING);
    thread.on('error', broken);
    if (loaded.has(thread)) begin();
    else thread.once('message', begin);
  }

  function next() {
    const first = waiting[0];
    if (!first) return;
    const rested = resting.pop();
    if (rested) clearTimeout(rested.timer);
    else if (threads.size >= options.size) return;
    waiting.shift();
    work(rested?.thread ?? open(), first);
  }

  return {
    run: (job, deadline = options.deadline) =>
      new Promise((resolve) => {
        const entry = {
          job,
          deadline,
          settle: (outcome: PoolOutcome<Reply>) => {
            clearTimeout(timer);
            resolve(outcome);
          },
        };
        const timer = setTimeout(() => {
          const index = waiting.indexOf(entry);
          if (index < 0) return;
          waiting.splice(index, 1);
          resolve({ kind: 'busy' });
        }, options.patience);
        waiting.push(entry);
        next();
      }),
    close() {
      for (const thread of [...threads]) end(thread);
    },
  };
}

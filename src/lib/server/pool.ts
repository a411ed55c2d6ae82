/**
 * Threads for work that would hold up everyone else: few, each with a deadline, started when wanted
 * and let go when idle. What waits too long is sent away rather than kept. A thread's first
 * message says that it is loaded, and its deadlines count from there: loading is no fault of the question's.
 * Nor is a machine that is busy with other programs: a deadline is of the processor's time.
 */
import { Worker } from 'node:worker_threads';

/** Milliseconds that a thread may take to load. */
const LOADING = 30_000;
/** The least share of a processor that is reckoned with. */
const LEAST_SHARE = 0.1;

type PoolOutcome<Reply> =
  | { readonly kind: 'done'; readonly reply: Reply }
  /** It took longer than the deadline, or more memory than a thread may have. */
  | { readonly kind: 'late' }
  /** Too much was waiting already, or the machine had too much else to do. */
  | { readonly kind: 'busy' };

export interface PoolOptions {
  readonly script: string;
  readonly size: number;
  /** Milliseconds of the processor that one job may take. */
  readonly deadline: number;
  /** Deadlines by the clock after which the machine is too busy, however little of the processor a job had. */
  readonly longest: number;
  /** Milliseconds that a job may wait for a thread. */
  readonly patience: number;
  /** How many may wait at once. */
  readonly queue: number;
  /** Milliseconds after which an idle thread is let go. */
  readonly idle: number;
  /** Whether a thread is there before the first question, and one always stays. */
  readonly warm: boolean;
  readonly megabytes: number;
}

interface Waiting<Job, Reply> {
  readonly job: Job;
  readonly settle: (outcome: PoolOutcome<Reply>) => void;
}

export interface Pool<Job, Reply> {
  readonly run: (job: Job) => Promise<PoolOutcome<Reply>>;
  readonly close: () => void;
}

export function createPool<Job, Reply>(options: PoolOptions): Pool<Job, Reply> {
  const waiting: Waiting<Job, Reply>[] = [];
  const resting: { readonly thread: Worker; readonly timer: NodeJS.Timeout }[] = [];
  const threads = new Set<Worker>();
  const loaded = new WeakSet<Worker>();
  /** Jobs that are being worked on. */
  let running = 0;

  /**
   * Tells what share of a processor each job has had, from one asking to the next: what the whole process
   * was given, over the jobs that were there to use it.
   */
  function sharing() {
    let [used, at] = [process.cpuUsage(), performance.now()];
    return () => {
      const [before, since] = [used, at];
      [used, at] = [process.cpuUsage(), performance.now()];
      const given = (used.user + used.system - before.user - before.system) / 1_000;
      const elapsed = at - since;
      return elapsed * Math.min(1, given / Math.max(1, elapsed * running));
    };
  }

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
      if (index < 0 || (options.warm && threads.size === 1)) return;
      resting.splice(index, 1);
      end(thread);
    }, options.idle);
    timer.unref();
    resting.push({ thread, timer });
  }

  function work(thread: Worker, { job, settle }: Waiting<Job, Reply>) {
    running += 1;
    const finish = (outcome: PoolOutcome<Reply>, usable: boolean) => {
      running -= 1;
      clearTimeout(deadline);
      thread.off('message', done);
      thread.off('message', begin);
      thread.off('error', broken);
      settle(outcome);
      if (usable) rest(thread);
      else end(thread);
      if (options.warm && threads.size === 0) void warmUp();
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
      const spentSince = sharing();
      const began = performance.now();
      let left = options.deadline;
      const look = () => {
        left -= spentSince();
        if (left <= options.deadline * 0.02) broken();
        else if (performance.now() - began > options.deadline * options.longest)
          finish({ kind: 'busy' }, false);
        else deadline = setTimeout(look, Math.max(left, options.deadline * LEAST_SHARE));
      };
      deadline = setTimeout(look, options.deadline);
      thread.on('message', done);
      thread.postMessage(job);
    };
    let deadline = setTimeout(broken, LOADING);
    thread.on('error', broken);
    if (loaded.has(thread)) begin();
    else thread.once('message', begin);
  }

  /** Has a thread loaded before it is asked anything. */
  function warmUp(): Promise<void> {
    const thread = open();
    return new Promise((resolve) => {
      const ready = () => {
        thread.off('error', broken);
        loaded.add(thread);
        rest(thread);
        next();
        resolve();
      };
      const broken = () => {
        thread.off('message', ready);
        end(thread);
        resolve();
      };
      thread.once('message', ready);
      thread.once('error', broken);
    });
  }
  const warm = options.warm ? warmUp() : Promise.resolve();

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
    async run(job) {
      await warm;
      if (waiting.length >= options.queue) return { kind: 'busy' };
      return new Promise((resolve) => {
        const entry = {
          job,
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
      });
    },
    close() {
      for (const thread of [...threads]) end(thread);
    },
  };
}

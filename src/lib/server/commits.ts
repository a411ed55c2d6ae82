/**
 * Writes that arrive together are committed together: the disk is waited for once, not once each.
 * Every write still answers only after its commit has reached the disk.
 */
import type { Db } from './database';
import { problemOf } from './problems';

/** What became of a save that was made on a revision. */
export type Saved<T> =
  | { readonly kind: 'saved'; readonly revision: number }
  /** Someone saved in between: here is what stands now. */
  | { readonly kind: 'conflict'; readonly current: T }
  | { readonly kind: 'missing' };

/** What was sent on a revision, and what it is held against where it was not taken. */
interface Sent<T> {
  readonly revision: number;
  readonly find: () => Promise<T | null>;
  /** Whether what stands there is what was sent: then it was sent twice. */
  readonly same: (current: T) => boolean;
}

/** What became of a save, once it is known whether a row took it. */
export async function outcomeOf<T extends { readonly revision: number }>(
  taken: boolean,
  { revision, find, same }: Sent<T>,
): Promise<Saved<T>> {
  if (taken) return { kind: 'saved', revision: revision + 1 };
  const current = await find();
  if (!current) return { kind: 'missing' };
  return same(current)
    ? { kind: 'saved', revision: current.revision }
    : { kind: 'conflict', current };
}

type Write = (transaction: Db) => Promise<unknown>;

interface Waiting {
  readonly write: Write;
  readonly done: (answer: unknown) => void;
  readonly failed: (error: unknown) => void;
}

const queues = new WeakMap<Db, Waiting[]>();

const writeAll = (db: Db, waiting: readonly Waiting[]): Promise<readonly unknown[]> =>
  db.transaction().execute(async (transaction) => {
    const given: unknown[] = [];
    for (const { write } of waiting) given.push(await write(transaction));
    return given;
  });

/** How long a lock held by another program is waited for, and how often it is tried, in milliseconds. */
const PATIENCE = 4_000;
const BETWEEN = 60;

/** Tries again while another program holds the lock; the rest of the server goes on meanwhile. */
async function patiently(write: () => Promise<readonly unknown[]>): Promise<readonly unknown[]> {
  const until = Date.now() + PATIENCE;
  for (;;) {
    try {
      return await write();
    } catch (error) {
      if (problemOf(error)?.kind !== 'busy' || Date.now() > until) throw error;
      await new Promise((resolve) => setTimeout(resolve, BETWEEN));
    }
  }
}

async function commit(db: Db): Promise<void> {
  const waiting = queues.get(db) ?? [];
  queues.delete(db);
  try {
    const answers = await patiently(() => writeAll(db, waiting));
    waiting.forEach(({ done }, index) => {
      done(answers[index]);
    });
  } catch (error) {
    // Nothing of the batch was kept. What one write could not do is no reason for the others to fail.
    if (waiting.length > 1 && problemOf(error)?.kind !== 'busy') await commitEach(db, waiting);
    else for (const { failed } of waiting) failed(error);
  }
}

/** Each write in a transaction of its own, in their order: the driver can go back to no savepoint. */
async function commitEach(db: Db, waiting: readonly Waiting[]): Promise<void> {
  for (const one of waiting) {
    try {
      const [answer] = await patiently(() => writeAll(db, [one]));
      one.done(answer);
    } catch (error) {
      one.failed(error);
    }
  }
}

/** Runs a write in the next transaction; its answer comes when that is on the disk. */
export function commitTogether<T>(db: Db, write: (transaction: Db) => Promise<T>): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    const waiting = { write, done: (answer: unknown) => resolve(answer as T), failed: reject };
    const queue = queues.get(db);
    if (queue) queue.push(waiting);
    else {
      queues.set(db, [waiting]);
      setImmediate(() => void commit(db));
    }
  });
}

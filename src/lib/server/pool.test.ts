import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createPool, type Pool, type PoolOptions } from './pool';

/** A thread that answers, never ends, breaks or fills its memory, as it is told. */
const SCRIPT = `
const { parentPort, threadId } = require('node:worker_threads');
parentPort.on('message', (job) => {
  if (job === 'spin') for (;;);
  if (job === 'break') throw new Error('broken');
  if (job === 'fill') { const all = []; for (;;) all.push(new Array(1e5).fill({})); }
  parentPort.postMessage({ job, threadId });
});
// As long as its modules take to load.
const until = Date.now() + Number(process.env.POOL_LOADING ?? 0);
while (Date.now() < until);
parentPort.postMessage('ready');`;

interface Reply {
  readonly job: string;
  readonly threadId: number;
}

let folder: string;
let pool: Pool<string, Reply> | null = null;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'corvel-pool-'));
  writeFileSync(join(folder, 'thread.cjs'), SCRIPT);
});

afterEach(() => {
  pool?.close();
  rmSync(folder, { recursive: true });
});

function open(changed: Partial<PoolOptions> = {}): Pool<string, Reply> {
  pool = createPool({
    script: join(folder, 'thread.cjs'),
    size: 2,
    deadline: 10_000,
    // Not reached, however little a busy machine gives the tests.
    longest: 1_000,
    patience: 120_000,
    queue: 100,
    idle: 60_000,
    warm: false,
    megabytes: 32,
    ...changed,
  });
  return pool;
}

const threadOf = async (asked: Pool<string, Reply>): Promise<number> => {
  const outcome = await asked.run('hello');
  return outcome.kind === 'done' ? outcome.reply.threadId : -1;
};

describe('a pool of threads', () => {
  test('answers each its own, with the same thread while one is enough', async () => {
    const asked = open();
    expect(await threadOf(asked)).toBe(await threadOf(asked));
    const outcomes = await Promise.all(['a', 'b', 'c', 'd'].map((job) => asked.run(job)));
    expect(outcomes.map((one) => one.kind === 'done' && one.reply.job)).toEqual([
      'a',
      'b',
      'c',
      'd',
    ]);
  });

  test('what takes too long is ended, and the next is answered', async () => {
    const asked = open({ size: 1, deadline: 400 });
    const late = asked.run('spin');
    const behind = asked.run('behind');
    expect(await late).toEqual({ kind: 'late' });
    expect(await behind).toMatchObject({ kind: 'done' });
  });

  test('the time it takes to load a thread is not the question’s', async () => {
    process.env['POOL_LOADING'] = '600';
    try {
      const asked = open({ size: 1, deadline: 300 });
      expect(await asked.run('hello')).toMatchObject({ kind: 'done' });
      expect(await asked.run('spin')).toEqual({ kind: 'late' });
      // The one that takes its place is loaded anew.
      expect(await asked.run('hello')).toMatchObject({ kind: 'done' });
    } finally {
      delete process.env['POOL_LOADING'];
    }
  });

  test('what breaks or fills its memory takes only its own thread along', async () => {
    const asked = open({ size: 1 });
    expect(await asked.run('break')).toEqual({ kind: 'late' });
    expect(await asked.run('fill')).toEqual({ kind: 'late' });
    expect(await asked.run('hello')).toMatchObject({ kind: 'done' });
  });

  test('what would wait too long for its turn is sent away', async () => {
    const asked = open({ size: 1, deadline: 1_500, patience: 100 });
    const first = asked.run('spin');
    expect(await asked.run('hello')).toEqual({ kind: 'busy' });
    expect(await first).toEqual({ kind: 'late' });
  });

  test('more than may wait are sent away at once', async () => {
    const asked = open({ size: 1, deadline: 300, queue: 1 });
    const first = asked.run('spin');
    const second = asked.run('hello');
    expect(await asked.run('third')).toEqual({ kind: 'busy' });
    expect([await first, await second]).toMatchObject([{ kind: 'late' }, { kind: 'done' }]);
  });

  test('a thread that is kept warm is there before the first job, and stays', async () => {
    process.env['POOL_LOADING'] = '300';
    try {
      const asked = open({ warm: true, idle: 50 });
      const first = await threadOf(asked);
      await new Promise((resolve) => setTimeout(resolve, 300));
      expect(await threadOf(asked)).toBe(first);
      expect(await asked.run('break')).toEqual({ kind: 'late' });
      expect(await threadOf(asked)).not.toBe(first);
    } finally {
      delete process.env['POOL_LOADING'];
    }
  });

  test('a deadline is of the processor’s time: what another program takes is not the job’s', async () => {
    // What the process is told it has used: half of what the clock says.
    const began = performance.now();
    const usage = vi
      .spyOn(process, 'cpuUsage')
      .mockImplementation(() => ({ user: (performance.now() - began) * 500, system: 0 }));
    const asked = open({ size: 1, deadline: 300 });
    const from = performance.now();
    expect(await asked.run('spin')).toEqual({ kind: 'late' });
    expect(performance.now() - from).toBeGreaterThan(550);
    usage.mockRestore();
  });

  test('where a job is hardly given any, the machine is too busy, and the job not too long', async () => {
    const usage = vi.spyOn(process, 'cpuUsage').mockReturnValue({ user: 0, system: 0 });
    const asked = open({ size: 1, deadline: 100, longest: 8 });
    const from = performance.now();
    expect(await asked.run('spin')).toEqual({ kind: 'busy' });
    expect(performance.now() - from).toBeGreaterThan(800);
    usage.mockRestore();
  });

  test('an idle thread is let go', async () => {
    const asked = open({ idle: 50 });
    const before = await threadOf(asked);
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(await threadOf(asked)).not.toBe(before);
  });
});

import { expose } from 'comlink';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { CancelledError, createCaller, LateError, LoadError } from './compute';

/** A worker of the same thread, over a channel of messages: what it is asked it answers by `answer`. */
function localWorker(
  answer: (request: unknown) => Promise<unknown>,
  /** Resolves when it is loaded. */
  ready: () => Promise<boolean> = () => Promise.resolve(true),
) {
  const { port1, port2 } = new MessageChannel();
  let ended = false;
  expose({ ready, exercise: answer }, port1 as unknown as Parameters<typeof expose>[1]);
  port1.start();
  port2.start();
  const worker = Object.assign(port2, {
    onerror: null,
    terminate() {
      ended = true;
      port1.close();
      port2.close();
    },
  });
  return { worker: worker as unknown as Worker, ended: () => ended };
}

const request = {} as Parameters<ReturnType<typeof createCaller<'exercise'>>['ask']>[0];

describe('a call to a worker', () => {
  test('is answered, again and again by the same one', async () => {
    let opened = 0;
    const local = localWorker(() => Promise.resolve('an answer'));
    const caller = createCaller('exercise', () => {
      opened += 1;
      return local.worker;
    });
    expect(await caller.ask(request)).toBe('an answer');
    expect(await caller.ask(request)).toBe('an answer');
    expect(opened).toBe(1);
    local.worker.terminate();
  });

  test('is ended by a newer one, and says so', async () => {
    const locals = [
      localWorker(() => new Promise(() => undefined)),
      localWorker(() => Promise.resolve('the newer')),
    ];
    let which = 0;
    const caller = createCaller('exercise', () => {
      const local = locals[which];
      which += 1;
      if (!local) throw new Error('no more workers');
      return local.worker;
    });
    const older = caller.ask(request);
    const newer = caller.ask(request);
    await expect(older).rejects.toBeInstanceOf(CancelledError);
    expect(await newer).toBe('the newer');
    expect(locals[0]?.ended()).toBe(true);
    locals[1]?.worker.terminate();
  });

  test('fails loudly: when the work fails, and when no worker can be had', async () => {
    const local = localWorker(() => Promise.reject(new Error('no such string')));
    const caller = createCaller('exercise', () => local.worker);
    await expect(caller.ask(request)).rejects.toThrow('no such string');
    local.worker.terminate();
    const none = createCaller('exercise', () => {
      throw new Error('forbidden');
    });
    await expect(none.ask(request)).rejects.toThrow('forbidden');
  });

  describe('with a deadline', () => {
    const DEADLINE = 1_000;
    const never = () => new Promise<never>(() => undefined);
    /** A function, and a promise of its first call. */
    function called<T>(result: () => Promise<T>) {
      let tell: () => void = () => undefined;
      const call = new Promise<void>((resolve) => (tell = resolve));
      return {
        call,
        act: () => {
          tell();
          return result();
        },
      };
    }
    afterEach(() => {
      vi.useRealTimers();
    });
    const useFakeTimers = () => {
      vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    };

    test('has it all for its work: loading is not counted', async () => {
      useFakeTimers();
      let load: (done: boolean) => void = () => undefined;
      const loading = called(() => new Promise<boolean>((resolve) => (load = resolve)));
      const local = localWorker(() => Promise.resolve('an answer'), loading.act);
      const caller = createCaller('exercise', () => local.worker, DEADLINE);
      const answer = caller.ask(request);
      await loading.call;
      vi.advanceTimersByTime(20 * DEADLINE);
      load(true);
      expect(await answer).toBe('an answer');
      expect(vi.getTimerCount()).toBe(0);
      caller.close();
    });

    test('is given up when it is over, and its worker ended', async () => {
      useFakeTimers();
      const working = called(never);
      const local = localWorker(working.act);
      const caller = createCaller('exercise', () => local.worker, DEADLINE);
      const late = expect(caller.ask(request)).rejects.toBeInstanceOf(LateError);
      await working.call;
      vi.advanceTimersByTime(DEADLINE - 1);
      expect(local.ended()).toBe(false);
      vi.advanceTimersByTime(1);
      await late;
      expect(local.ended()).toBe(true);
    });

    test('is given up too where its worker does not load', async () => {
      useFakeTimers();
      const loading = called(never);
      const local = localWorker(never, loading.act);
      const caller = createCaller('exercise', () => local.worker, DEADLINE);
      const unloaded = expect(caller.ask(request)).rejects.toBeInstanceOf(LoadError);
      await loading.call;
      vi.advanceTimersByTime(30_000);
      await unloaded;
      expect(local.ended()).toBe(true);
    });

    test('leaves the worker of a newer call alone when it was cancelled', async () => {
      useFakeTimers();
      const workings = [called(never), called(never)] as const;
      const locals = workings.map(({ act }) => localWorker(act));
      let which = 0;
      const open = () => {
        const local = locals[which];
        which += 1;
        if (!local) throw new Error('no more workers');
        return local.worker;
      };
      const caller = createCaller('exercise', open, DEADLINE);
      const older = expect(caller.ask(request)).rejects.toBeInstanceOf(CancelledError);
      await workings[0].call;
      vi.advanceTimersByTime(DEADLINE / 2);
      const newer = expect(caller.ask(request)).rejects.toBeInstanceOf(LateError);
      await workings[1].call;
      vi.advanceTimersByTime(DEADLINE / 2);
      expect(locals[1]?.ended()).toBe(false);
      vi.advanceTimersByTime(DEADLINE / 2);
      await Promise.all([older, newer]);
      expect(locals[1]?.ended()).toBe(true);
    });
  });
});

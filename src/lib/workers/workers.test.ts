import { expose } from 'comlink';
import { describe, expect, test } from 'vitest';
import { CancelledError, createCaller } from './compute';

/** A worker of the same thread, over a channel of messages: what it is asked it answers by `answer`. */
function localWorker(answer: (request: unknown) => Promise<unknown>) {
  const { port1, port2 } = new MessageChannel();
  let ended = false;
  expose({ exercise: answer, routes: answer }, port1 as unknown as Parameters<typeof expose>[1]);
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
});

import { describe, expect, test } from 'vitest';
import { createWays } from './ways';

/** A router with one page on its way, and what was done, in its order. */
function router() {
  const done: string[] = [];
  let complete: Promise<void> | null = null;
  const ways = createWays(() => complete);
  return {
    done,
    ...ways,
    act: (name: string) => ways.whenArrived(() => void done.push(name)),
    /** The router says that a page is on its way; the answer ends it. */
    onItsWay(how: 'comes' | 'is let go of' = 'comes'): () => void {
      const { promise, resolve, reject } = withResolvers();
      complete = promise;
      promise.catch(() => undefined);
      return () => {
        if (how === 'comes') complete = null;
        if (how === 'comes') resolve();
        else reject(new Error('navigation aborted'));
      };
    },
  };
}

function withResolvers() {
  let resolve = () => {};
  let reject: (reason: Error) => void = () => undefined;
  const promise = new Promise<void>((yes, no) => {
    resolve = yes;
    reject = no;
  });
  return { promise, resolve, reject };
}

const settled = () => new Promise((resolve) => setTimeout(resolve));

describe('what waits for a page on its way', () => {
  test('is done at once where there is none', async () => {
    const { act, done } = router();
    await act('asked');
    expect(done).toEqual(['asked']);
  });

  test('waits for one that the router knows of, whether it comes or not', async () => {
    for (const how of ['comes', 'is let go of'] as const) {
      const { act, done, onItsWay } = router();
      const end = onItsWay(how);
      void act('asked');
      await settled();
      expect(done).toEqual([]);
      end();
      await settled();
      expect(done).toEqual(['asked']);
    }
  });

  test('waits for one that was set off just now, before the router knows of it', async () => {
    const { act, done, go } = router();
    const { promise, resolve } = withResolvers();
    void go(promise);
    void act('asked');
    await settled();
    expect(done).toEqual([]);
    resolve();
    await settled();
    expect(done).toEqual(['asked']);
  });

  test('waits as well where another that waited with it sets off', async () => {
    const { act, done, go, onItsWay, whenArrived } = router();
    const end = onItsWay();
    const { promise, resolve } = withResolvers();
    void whenArrived(() => void go(promise));
    void act('asked');
    end();
    await settled();
    expect(done).toEqual([]);
    resolve();
    await settled();
    expect(done).toEqual(['asked']);
  });

  test('waits for the last of two that were set off', async () => {
    const { act, done, go } = router();
    const [first, last] = [withResolvers(), withResolvers()];
    void go(first.promise);
    void go(last.promise);
    void act('asked');
    first.resolve();
    await settled();
    expect(done).toEqual([]);
    last.resolve();
    await settled();
    expect(done).toEqual(['asked']);
  });
});

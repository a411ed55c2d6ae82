import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { once } from './once';

describe('an action that makes something', () => {
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setTimeout'] });
  });
  afterEach(() => {
    vi.useRealTimers();
  });
  /** Lets what has been settled be noticed. */
  const settled = async () => {
    for (let turn = 0; turn < 5; turn += 1) await Promise.resolve();
  };

  test('is begun once while it is under way, however long that is', async () => {
    let finish: (id: string) => void = () => undefined;
    const action = vi.fn(() => new Promise<string>((resolve) => (finish = resolve)));
    const made = once<readonly [string], string>(action);
    const first = made('a chart');
    vi.advanceTimersByTime(10_000);
    await settled();
    const second = made('a chart');
    finish('its id');
    expect(await Promise.all([first, second])).toEqual(['its id', 'its id']);
    expect(action).toHaveBeenCalledTimes(1);
  });

  test('is not begun by the second press of a double click, and is by a later one', async () => {
    const action = vi.fn(() => Promise.resolve(true));
    const made = once(action);
    await made();
    vi.advanceTimersByTime(599);
    await settled();
    expect(await made()).toBe(true);
    expect(action).toHaveBeenCalledTimes(1);
    vi.advanceTimersByTime(1);
    await settled();
    await made();
    expect(action).toHaveBeenCalledTimes(2);
  });

  test('is begun beside another', async () => {
    const action = vi.fn((id: string) => Promise.resolve(id));
    const made = once(action);
    expect(await Promise.all([made('one'), made('other'), made('one')])).toEqual([
      'one',
      'other',
      'one',
    ]);
    expect(action).toHaveBeenCalledTimes(2);
  });

  test('may be tried again when it has failed', async () => {
    const action = vi.fn().mockRejectedValueOnce(new Error('away')).mockResolvedValue('there');
    const made = once(action);
    await expect(made()).rejects.toThrow('away');
    await expect(made()).rejects.toThrow('away');
    vi.advanceTimersByTime(600);
    await settled();
    expect(await made()).toBe('there');
  });
});

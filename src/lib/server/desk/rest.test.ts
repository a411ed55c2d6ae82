import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { setTimeout as sleep } from 'node:timers/promises';

vi.mock('node:timers/promises', () => ({ setTimeout: vi.fn(() => Promise.resolve()) }));

beforeEach(() => vi.useFakeTimers({ toFake: ['performance'] }));
afterEach(() => vi.useRealTimers());

test('work rests for as long as it took, but for short work and no longer than others need', async () => {
  // Its clock begins when it is loaded; another file of this thread may have loaded it before, with the real one.
  vi.resetModules();
  const { rest } = await import('./rest');
  const rested = vi.mocked(sleep);
  const after = async (worked: number) => {
    await rest();
    rested.mockClear();
    vi.advanceTimersByTime(worked);
    await rest();
    return rested.mock.calls.map(([milliseconds]) => milliseconds);
  };
  vi.advanceTimersByTime(1_000);
  expect(await after(20)).toEqual([20]);
  expect(await after(4)).toEqual([]);
  // What was too short to rest for counts on.
  expect(await after(4)).toEqual([8]);
  expect(await after(500)).toEqual([40]);
});

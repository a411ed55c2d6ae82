import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { setBusy, whenQuiet } from './quiet';

const page = new EventTarget();

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('addEventListener', page.addEventListener.bind(page));
  vi.stubGlobal('removeEventListener', page.removeEventListener.bind(page));
});

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

test('work waits for two seconds without a key or a pointer, and is done once', () => {
  const work = vi.fn();
  whenQuiet(work);
  vi.advanceTimersByTime(1_500);
  page.dispatchEvent(new Event('keydown'));
  vi.advanceTimersByTime(1_500);
  page.dispatchEvent(new Event('pointerdown'));
  vi.advanceTimersByTime(1_900);
  expect(work).not.toHaveBeenCalled();
  vi.advanceTimersByTime(200);
  expect(work).toHaveBeenCalledTimes(1);
  page.dispatchEvent(new Event('keydown'));
  vi.advanceTimersByTime(60_000);
  expect(work).toHaveBeenCalledTimes(1);
});

test('work waits while anything runs', () => {
  const work = vi.fn();
  const [band, recording] = [{}, {}];
  setBusy(band, true);
  setBusy(recording, true);
  whenQuiet(work);
  vi.advanceTimersByTime(600_000);
  setBusy(band, false);
  vi.advanceTimersByTime(10_000);
  expect(work).not.toHaveBeenCalled();
  setBusy(recording, false);
  vi.advanceTimersByTime(5_000);
  expect(work).toHaveBeenCalledTimes(1);
});

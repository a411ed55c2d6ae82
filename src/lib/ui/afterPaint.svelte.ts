/** Work that waits until what a key changes has been painted. */
import { untrack } from 'svelte';

/**
 * Runs work once the frame being made is painted, so that what a key changes is seen first. Answers
 * how to call it off.
 */
export function afterPaint(work: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const frame = requestAnimationFrame(() => {
    timer = setTimeout(work);
  });
  return () => {
    cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

/**
 * Runs work at the beginning of the second frame from now: after a frame that has enough to draw, so
 * that nothing is added to it. Answers how to call it off.
 */
export function inSecondFrame(work: () => void): () => void {
  let frame = requestAnimationFrame(() => {
    frame = requestAnimationFrame(work);
  });
  return () => {
    cancelAnimationFrame(frame);
  };
}

/** Frames a change may take up before work for the next one begins. */
const CHANGE = 3;

/**
 * Runs works one after the other, each in a frame of its own and after the frames of the change that
 * asks for them. Answers how to call them off.
 */
export function stepwise(...works: readonly (() => void)[]): () => void {
  let step = -CHANGE;
  const next = () => {
    works[step]?.();
    if (++step < works.length) callOff = afterPaint(next);
  };
  let callOff = afterPaint(next);
  return () => {
    callOff();
  };
}

interface Late<T> {
  readonly current: T;
  /** Follows at once: for what may not act on the past. */
  readonly catchUp: () => void;
}

/**
 * A value that follows another a frame later: what may be seen after what a key changes first.
 *
 * @example const said = late(() => study.nowIndex); // said.current
 */
export function late<T>(read: () => T, when = afterPaint): Late<T> {
  let current = $state.raw(untrack(read));
  $effect(() => {
    const value = read();
    if (value !== untrack(() => current)) return when(() => (current = value));
  });
  return {
    get current() {
      return current;
    },
    catchUp() {
      current = untrack(read);
    },
  };
}

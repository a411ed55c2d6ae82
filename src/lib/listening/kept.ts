/** The last minutes of what came in, so that a take may be kept with its sound. */
import type { Seconds } from '$core/time/units';

/** No more than this is held, in seconds; it goes with the page. */
const HELD: Seconds = 300;

interface Part {
  readonly from: Seconds;
  readonly samples: Float32Array;
}

export function createKept(rate: number) {
  let parts: Part[] = [];

  return {
    add(samples: Float32Array, from: Seconds) {
      parts.push({ from, samples });
      // Not at every block: a list this long is not cut for each.
      if (parts.length % 1_000 === 0) parts = parts.filter((part) => part.from > from - HELD);
    },
    /** What came in between two seconds of the clock; silence where nothing did. */
    between(from: Seconds, to: Seconds): Float32Array {
      const whole = new Float32Array(Math.max(0, Math.round((to - from) * rate)));
      for (const part of parts) {
        const at = Math.round((part.from - from) * rate);
        const first = Math.max(0, -at);
        const last = Math.min(part.samples.length, whole.length - at);
        if (first < last) whole.set(part.samples.subarray(first, last), at + first);
      }
      return whole;
    },
  };
}

export type Kept = ReturnType<typeof createKept>;

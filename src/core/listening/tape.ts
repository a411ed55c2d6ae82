/** The last seconds of a sound, as it comes in, at the rate it is listened to. */

/** What samples are brought down to: enough for the highest note and its pick. */
const RATE = 22_050;

/** The samples that came last. */
export interface Tape {
  /** Samples a second, after bringing down. */
  readonly rate: number;
  /** Samples there have been since the beginning. */
  readonly length: number;
  /** Takes more samples, mono, −1 to 1, at the rate given. */
  append(samples: Float32Array): void;
  /** `length` samples from a place; silence where there are none, or none any more. */
  copy(from: number, length: number): Float32Array;
  /** Lets go of what lies before a place. */
  forget(before: number): void;
}

/** A tape for samples at a rate in hertz. */
export function createTape(givenRate: number): Tape {
  const factor = Math.max(1, Math.round(givenRate / RATE));
  // A triangle of twice the step keeps what would fold back low.
  const weights = Float32Array.from(
    { length: 2 * factor - 1 },
    (_, index) => (factor - Math.abs(index + 1 - factor)) / (factor * factor),
  );
  let held = new Float32Array(1 << 16);
  let first = 0;
  let length = 0;
  /** What was given and has not all been weighed in yet: a triangle reaches back. */
  let rest = new Float32Array(factor - 1);

  function room(more: number) {
    if (length - first + more <= held.length) return;
    const wider = new Float32Array(2 * (length - first + more));
    wider.set(held.subarray(0, length - first));
    held = wider;
  }

  return {
    rate: givenRate / factor,
    get length() {
      return length;
    },
    append(samples) {
      const all = new Float32Array(rest.length + samples.length);
      all.set(rest);
      all.set(samples, rest.length);
      const count = Math.max(0, Math.floor((all.length - weights.length) / factor) + 1);
      room(count);
      for (let index = 0; index < count; index++) {
        let value = 0;
        for (let place = 0; place < weights.length; place++)
          value += (weights[place] as number) * (all[index * factor + place] as number);
        held[length - first + index] = value;
      }
      length += count;
      rest = all.slice(count * factor);
    },
    copy(from, count) {
      const out = new Float32Array(count);
      const begin = Math.max(from, first);
      const end = Math.min(from + count, length);
      if (end > begin) out.set(held.subarray(begin - first, end - first), begin - from);
      return out;
    },
    forget(before) {
      const gone = Math.min(before, length) - first;
      // Moved rarely: only when most of what is held is let go.
      if (gone * 2 < held.length) return;
      held.copyWithin(0, gone, length - first);
      first += gone;
    },
  };
}

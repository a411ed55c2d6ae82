/** Listens away from the page: samples in, notes out. */
import { expose } from 'comlink';
import { createListener, type Listener, notesIn } from '$core/listening/notes';
import type { Hearing } from './hearing';

let listener: Listener | null = null;

const hearing = {
  begin(rate: number) {
    listener = createListener(rate);
  },
  hear(samples: Float32Array): Hearing {
    const notes = listener?.hear(samples) ?? [];
    const peak = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    return {
      notes,
      sounding: listener?.sounding() ?? null,
      struck: listener?.struck() ?? null,
      peak,
    };
  },
  /** All notes of a recording. */
  whole: (samples: Float32Array, rate: number) => notesIn(samples, rate),
};

export type HearingWorker = typeof hearing;

expose(hearing);

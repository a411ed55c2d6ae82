/** Where sound goes: the browser's audio through Tone.js, or a clock alone where there is none. */
import type { Seconds } from '$core/time/units';
import type { Gains } from './mix';
import type { SoundPart } from './parts';
import type { SoundEvent } from './programme';

/** Something to be heard at a second of the clock. */
export interface Sound {
  readonly event: SoundEvent;
  readonly at: Seconds;
  readonly seconds: Seconds;
}

export interface Output {
  /** The only clock: by it sound is scheduled and drawing follows. */
  readonly now: () => Seconds;
  /** Calls back often enough to schedule ahead, whether the page is looked at or not; ends by the answer. */
  readonly every: (tick: () => void) => () => void;
  /** Fetches the sounds of parts; told the share that is there, 0–1. Answers what is missing, in words. */
  readonly prepare: (
    parts: readonly SoundPart[],
    onProgress: (share: number) => void,
  ) => Promise<string | null>;
  readonly sound: (sound: Sound) => void;
  readonly mix: (gains: Gains) => void;
  /** Ends what sounds and what is scheduled. */
  readonly silence: () => void;
  /** Why nothing is heard, as a sentence; null where it is. */
  readonly silent: string | null;
}

const NO_SOUND = 'This machine gives no sound: it goes on in time, but silently.';
const TICK = 0.05;

/** A clock without sound. Where the page is not looked at its timer is slower, as drawing is. */
export const silentOutput = (
  reason: string = NO_SOUND,
  now: () => Seconds = () => performance.now() / 1000,
): Output => ({
  now,
  every(tick) {
    const timer = setInterval(tick, TICK * 1000);
    return () => {
      clearInterval(timer);
    };
  },
  prepare: () => Promise.resolve(null),
  sound: () => undefined,
  mix: () => undefined,
  silence: () => undefined,
  silent: reason,
});

/** How long a machine may take to start its sound, in milliseconds. */
const STARTING = 1_500;

/** Opens the sound of this machine. It is large: it comes when something is first played. */
export async function openOutput(): Promise<Output> {
  try {
    const { startTone } = await import('./tone');
    const late = new Promise<null>((resolve) => {
      setTimeout(() => {
        resolve(null);
      }, STARTING);
    });
    return (await Promise.race([startTone(), late])) ?? silentOutput();
  } catch {
    return silentOutput();
  }
}

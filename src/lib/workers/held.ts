/**
 * What takes time to begin and has to be ended, however early it is asked to: a microphone, a worker, a wake
 * lock, MIDI. Between asking and being given, the player may have left.
 */

/** Why something was not begun: it was called off before it was there. */
class CalledOffError extends Error {
  override name = 'CalledOffError';
}

/**
 * Takes what has been given into care: it is ended with all the rest, in reverse order. Where all was called
 * off meanwhile it is ended at once, and a {@link CalledOffError} ends the beginning.
 */
export type Own = <R>(given: R, end: (given: R) => void) => R;

export interface Held<T> {
  /** What was begun last, once it is wholly there. */
  readonly current: T | null;
  /**
   * Ends what there is and begins anew: what was begun, or null where it was called off meanwhile. Rejects
   * with what went wrong; what had been given by then is ended.
   */
  readonly begin: (begins: (own: Own) => Promise<T>) => Promise<T | null>;
  /** Ends what there is, and what is still on its way as soon as it comes. */
  readonly end: () => void;
}

/**
 * @example
 * const lock = createHeld<WakeLockSentinel>();
 * await lock.begin(async (own) => own(await navigator.wakeLock.request('screen'), (it) => void it.release()));
 * lock.end(); // also where the request has not been answered yet
 */
export function createHeld<T>(): Held<T> {
  let current: T | null = null;
  /** Ends what is held; a new list for each beginning. */
  let ends: (() => void)[] = [];

  function end() {
    current = null;
    const ending = ends.reverse();
    ends = [];
    for (const one of ending) one();
  }

  return {
    get current() {
      return current;
    },
    end,
    async begin(begins) {
      end();
      const mine = ends;
      const calledOff = () => mine !== ends;
      try {
        const begun = await begins((given, ending) => {
          if (calledOff()) {
            ending(given);
            throw new CalledOffError('It was called off.');
          }
          mine.push(() => ending(given));
          return given;
        });
        if (calledOff()) return null;
        current = begun;
        return begun;
      } catch (error) {
        if (calledOff()) return null;
        end();
        throw error;
      }
    },
  };
}

/** Double buffering: what comes next is drawn unseen, so that a change only shows it. */
import { untrack } from 'svelte';
import { stepwise } from './afterPaint.svelte';

interface DoubleBuffer<T> {
  /** What the two pictures show; the second stays empty until something is to come. */
  readonly pictures: readonly [T, T | null];
  /** Which of the two is seen. */
  readonly seen: 0 | 1;
}

interface Options<T> {
  /** What is to be seen now. */
  readonly wanted: () => T;
  /** How to make what comes next, which may be costly; null where nothing does. */
  readonly coming: () => (() => T) | null;
  /** Whether two of them are drawn alike. */
  readonly same: (one: T, other: T) => boolean;
}

/**
 * Two pictures, one of them seen. What comes is made in one frame and handed to the picture that is
 * not seen in another, after the frames of the change before it; when it is wanted, the two change
 * places. What was not foreseen is drawn where it is seen.
 */
export function doubleBuffer<T>({ wanted, coming, same }: Options<T>): DoubleBuffer<T> {
  let seen = $state<0 | 1>(0);
  let pictures = $state.raw<readonly [T, T | null]>([untrack(wanted), null]);
  const put = (place: 0 | 1, picture: T) => {
    // The first is never empty: it is what is seen until there is a second.
    pictures = place === 0 ? [picture, pictures[1]] : [pictures[0], picture];
  };
  const shows = (place: 0 | 1, picture: T) => {
    const there = pictures[place];
    return there !== null && same(there, picture);
  };

  $effect.pre(() => {
    const picture = wanted();
    untrack(() => {
      const other = seen === 0 ? 1 : 0;
      if (shows(seen, picture)) return;
      if (shows(other, picture)) seen = other;
      else put(seen, picture);
    });
  });

  $effect(() => {
    const make = coming();
    const unseen = seen === 0 ? 1 : 0;
    if (!make) return;
    let picture: T;
    return stepwise(
      () => (picture = make()),
      () => {
        if (!shows(unseen, picture)) put(unseen, picture);
      },
    );
  });

  return {
    get pictures() {
      return pictures;
    },
    get seen() {
      return seen;
    },
  };
}

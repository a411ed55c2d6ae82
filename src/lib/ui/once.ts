/** How long a press may be pressed again by itself, in milliseconds: a double click, or a key held down. */
const AGAIN = 600;

/**
 * An action that is under way, or was begun just now, is not begun again with the same: whoever presses twice
 * gets what the first press gets. For what makes something new; what it takes is data.
 */
export function once<A extends readonly unknown[], R>(
  action: (...args: A) => Promise<R>,
): (...args: A) => Promise<R> {
  const begun = new Map<string, Promise<R>>();
  return (...args) => {
    const what = JSON.stringify(args);
    const same = begun.get(what);
    if (same) return same;
    const done = action(...args);
    begun.set(what, done);
    const soon = new Promise((resolve) => setTimeout(resolve, AGAIN));
    void Promise.allSettled([done, soon]).then(() => begun.delete(what));
    return done;
  };
}

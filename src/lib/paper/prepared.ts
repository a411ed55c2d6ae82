/** What a page makes ready before it is printed: parts that come only when they are asked for. */

const makers = new Set<() => Promise<unknown>>();

/** Names something to make ready first; answers how to take it back. */
export function beforePaper(make: () => Promise<unknown>): () => void {
  makers.add(make);
  return () => makers.delete(make);
}

/** Resolves when the page can be printed. What cannot come is left out. */
export const paperReady = (): Promise<unknown> =>
  Promise.allSettled([...makers].map((make) => make()));

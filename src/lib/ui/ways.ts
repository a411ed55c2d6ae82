/** Pages on their way, and what waits until they have come. */

/**
 * @param complete when the page that the router says is on its way has come; null for none
 */
export function createWays(complete: () => Promise<unknown> | null) {
  /** What was set off here last: the router says so some microtasks after it was asked, too late for who waits. */
  let setOff: Promise<unknown> | null = null;

  /** Sets off to a page. */
  function go(way: Promise<void>): Promise<void> {
    setOff = way;
    const over = () => {
      if (setOff === way) setOff = null;
    };
    way.then(over, over);
    return way;
  }

  /** Does something once no page is on its way, in the moment that is seen. */
  async function whenArrived<T>(act: () => T): Promise<Awaited<T>> {
    let seen: Promise<unknown> | null = null;
    for (;;) {
      const way = setOff ?? complete();
      // One that was let go of stays the router's last.
      if (way === null || way === seen) return await act();
      seen = way;
      await way.catch(() => undefined);
    }
  }

  return { go, whenArrived };
}

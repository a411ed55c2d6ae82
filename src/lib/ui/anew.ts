/** What a page shows, asked of the server anew. */
import { untrack } from 'svelte';
import { goto, invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';
import { createWays } from './ways';

const ways = createWays(() => untrack(() => navigating.complete));

/**
 * Does something once no page is on its way. SvelteKit lets go of a page that is on its way when anything else is
 * asked for meanwhile: what comes by itself, or after an answer of the server, waits for it first.
 */
export const { whenArrived } = ways;

/** Opens a page after an answer of the server; what comes by itself waits for it from this moment. */
export const openPage: typeof goto = (...to) => ways.go(goto(...to));

/**
 * Asked before a question: whether the player is still there after its answer, once no page is on its way. What was
 * made meanwhile opens only where he waits for it.
 *
 * @param place what counts as one place; each address by itself where it is left out
 */
export function staying(
  place: () => string | null = () => location.pathname,
): () => Promise<boolean> {
  const from = place();
  return () => ways.whenArrived(() => place() === from);
}

/** Asks the server anew for all that the page shows. */
export const askAnew = (): Promise<void> => whenArrived(invalidateAll);

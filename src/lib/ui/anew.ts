/** What a page shows, asked of the server anew. */
import { untrack } from 'svelte';
import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Once no page is on its way. SvelteKit lets go of a page that is on its way when anything else is asked for
 * meanwhile: what comes by itself, or after an answer of the server, waits for it first.
 */
export async function arrived(): Promise<void> {
  let seen: Promise<void> | null = null;
  for (;;) {
    const way = untrack(() => navigating.complete);
    if (way === null || way === seen) return;
    seen = way;
    await way.catch(() => undefined);
  }
}

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
  return async () => {
    await arrived();
    return place() === from;
  };
}

/** Asks the server anew for all that the page shows. */
export async function askAnew(): Promise<void> {
  await arrived();
  await invalidateAll();
}

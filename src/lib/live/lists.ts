/** The lists of what is kept, asked for anew when another device has saved something that they show. */
import { invalidateAll } from '$app/navigation';
import { pagesShowing } from '$lib/kept/addresses';
import { openPage, whenArrived } from '$lib/ui/anew';
import { succeeds } from '$lib/ui/server';
import { onMessage, onReturn } from './live';

/** How long saves are gathered before a list is asked for anew, in milliseconds. */
const SETTLED = 300;

/** The list that an address of the app shows; null for none. */
export const listAt = (path: string): string | null =>
  /^(\/(?:licks|log)?)(?:\/[a-z0-9]+)?$/u.exec(path)?.[1] ?? null;

/**
 * Whether something that is saved changes a list.
 *
 * @param open the id of what is open beside the list: it is saved while it is typed, and not asked for meanwhile
 */
export const changesList = (saved: string, list: string, open: string | null): boolean =>
  pagesShowing(saved).includes(list) && !saved.split('/').includes(open ?? '/');

/**
 * Keeps the list that is seen as the server has it; the answer ends it.
 *
 * @param open the id of what is open beside the list; null for nothing
 */
export function keepLists(open: () => string | null): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  async function ask(): Promise<void> {
    const list = listAt(location.pathname);
    const id = open();
    if (list === null) return;
    // What is open stays open, whatever comes first in the list from now on, and its session goes on.
    if (id !== null && location.pathname === list)
      await openPage(`${list}/${id}${location.search}`, {
        replaceState: true,
        keepFocus: true,
        noScroll: true,
        invalidateAll: true,
      });
    else await invalidateAll();
  }
  const soon = () => {
    clearTimeout(timer);
    timer = setTimeout(() => void whenArrived(ask), SETTLED);
  };
  const ends = [
    onMessage('changed', ({ path }) => {
      const list = listAt(location.pathname);
      if (list !== null && changesList(path, list, open())) soon();
    }),
    onReturn(() => {
      // A page that is seen again may have no server.
      if (listAt(location.pathname) !== null)
        void succeeds('/api/settings', 'GET').then((there) => there && soon());
    }),
  ];
  return () => {
    clearTimeout(timer);
    for (const end of ends) end();
  };
}

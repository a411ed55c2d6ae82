/** What is opened over or beside the page: Escape closes the last, and the focus goes back. */

/** One that is on its way out is no longer open: the key pressed after Escape is the page's. */
const LAYERS =
  ':is([role="dialog"], [role="alertdialog"], [role="menu"]):not([data-state="closed"])';

/** Whether a sheet, a menu or an open list lies over the page: then its keys are its own. */
export const isLayerOpen = (): boolean =>
  // Layers stand behind the page in the body; the page itself is not searched at every key.
  [...document.body.children].slice(1).some((one) => one.querySelector(LAYERS) !== null);

const isFocusable = (one: Element | null): one is HTMLElement | SVGElement =>
  one instanceof HTMLElement || one instanceof SVGElement;

/** Whether the focus has gone with what was taken away, or never was anywhere. */
const isFocusLost = (): boolean =>
  document.activeElement === null || document.activeElement === document.body;

/**
 * Remembers where the focus is; called, gives it back there and says whether it could. Where nothing had
 * it and no fallback is named, nothing gets it: the next key is the page's.
 */
export function rememberFocus(fallback: string | null = null): () => boolean {
  const from = isFocusLost() ? null : document.activeElement;
  return () => {
    const known = from?.isConnected ? from : null;
    const target = known ?? (fallback === null ? null : document.querySelector(fallback));
    if (isFocusable(target)) target.focus({ preventScroll: true });
    return isFocusable(target) || (from === null && fallback === null);
  };
}

type Close = () => void;
const opened: Close[] = [];

function onkeydown(event: KeyboardEvent) {
  const last = opened.at(-1);
  // What lies over the page has taken the key for itself.
  if (event.key !== 'Escape' || event.defaultPrevented || !last) return;
  event.preventDefault();
  last();
}

/**
 * Says that a part of the page is open; to be undone, with what is returned, when it is gone. For
 * parts that no library closes: panels and editors.
 */
export function openPart(close: Close): () => void {
  const back = rememberFocus('[data-chord][tabindex="0"]');
  if (opened.length === 0) window.addEventListener('keydown', onkeydown);
  opened.push(close);
  return () => {
    opened.splice(opened.indexOf(close), 1);
    if (opened.length === 0) window.removeEventListener('keydown', onkeydown);
    // The part itself goes in the same breath, and the focus that was in it.
    queueMicrotask(() => {
      if (isFocusLost()) back();
    });
  };
}

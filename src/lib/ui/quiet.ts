/** Work that can wait until the page is left alone. */

/** How long no key and no pointer is pressed before a page is left alone, in milliseconds. */
const PAUSE = 2_000;

const busy = new Set<object>();

/** Says that something runs that is not to be disturbed, such as a band; or that it is over. */
export function setBusy(who: object, runs: boolean): void {
  if (runs) busy.add(who);
  else busy.delete(who);
}

/** Runs work once nothing has been pressed for a while, and nothing runs. */
export function whenQuiet(work: () => void): void {
  let pressed = performance.now();
  const press = () => {
    pressed = performance.now();
  };
  const kinds = ['keydown', 'pointerdown'] as const;
  for (const kind of kinds) addEventListener(kind, press, { capture: true, passive: true });
  const look = () => {
    const left = busy.size > 0 ? PAUSE : pressed + PAUSE - performance.now();
    if (left > 0) {
      setTimeout(look, left);
      return;
    }
    for (const kind of kinds) removeEventListener(kind, press, { capture: true });
    work();
  };
  look();
}

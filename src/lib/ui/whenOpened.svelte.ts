/** What draws a sheet or a dialog, which comes when it is first opened. */
import { rememberFocus } from './opened';

/**
 * Loads a component when something is first opened, and remembers each time where the focus was, by
 * whatever way it was opened.
 */
export function whenOpened<C>(isOpen: () => boolean, load: () => Promise<{ readonly default: C }>) {
  let drawer = $state.raw<C | null>(null);
  let back = $state.raw<(() => boolean) | null>(null);
  $effect.pre(() => {
    if (isOpen()) back = rememberFocus();
  });
  $effect(() => {
    if (isOpen() && !drawer) void load().then((module) => (drawer = module.default));
  });
  return {
    /** What draws it; null until it has come. */
    get drawer() {
      return drawer;
    },
    /** Gives the focus back to where it was; false where that is gone. */
    get back() {
      return back;
    },
  };
}

/** The screen: kept awake while something plays, and filled on wish. */

import { createHeld } from '$lib/workers/held';

/** Keeps the screen awake until the answer is called; quietly does nothing where it cannot. */
export function keepAwake(): () => void {
  const lock = createHeld<WakeLockSentinel>();
  const take = async () => {
    if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
    try {
      await lock.begin(async (own) =>
        own(await navigator.wakeLock.request('screen'), (given) => void given.release()),
      );
    } catch {
      // A battery that is low, a page that is not looked at: the screen sleeps as usual.
    }
  };
  const again = () => void take();
  document.addEventListener('visibilitychange', again);
  again();
  return () => {
    document.removeEventListener('visibilitychange', again);
    lock.end();
  };
}

export async function toggleFullScreen(): Promise<void> {
  if (document.fullscreenElement) await document.exitFullscreen();
  else await document.documentElement.requestFullscreen().catch(() => undefined);
}

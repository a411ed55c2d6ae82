/** The screen: kept awake while something plays, and filled on wish. */

/** Keeps the screen awake until the answer is called; quietly does nothing where it cannot. */
export function keepAwake(): () => void {
  let lock: WakeLockSentinel | null = null;
  let over = false;
  const take = async () => {
    if (over || document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return;
    try {
      const taken = await navigator.wakeLock.request('screen');
      lock = taken;
      // What was asked for may be over by the time it is given.
      if ((over as boolean) === true) void taken.release();
    } catch {
      // A battery that is low, a page that is not looked at: the screen sleeps as usual.
    }
  };
  const again = () => void take();
  document.addEventListener('visibilitychange', again);
  again();
  return () => {
    over = true;
    document.removeEventListener('visibilitychange', again);
    void lock?.release();
  };
}

export async function toggleFullScreen(): Promise<void> {
  if (document.fullscreenElement) await document.exitFullscreen();
  else await document.documentElement.requestFullscreen().catch(() => undefined);
}

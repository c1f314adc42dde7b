import { useEffect } from 'react';

/**
 * Keeps the screen on while a page is shown, where the browser can; asked for again when one comes back to it.
 * @returns whether it can at all: over a network without encryption no browser does
 */
export function useAwake(): boolean {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let here = true;
    const hold = async () => {
      if (document.visibilityState !== 'visible') return;
      // Refused on a low battery, or not there at all: the screen then goes dark as it is set to.
      const held = (await navigator.wakeLock?.request('screen').catch(() => null)) ?? null;
      if (here) lock = held;
      else await held?.release();
    };
    void hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      here = false;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, []);
  return 'wakeLock' in navigator;
}

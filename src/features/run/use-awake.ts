'use client';

import { useEffect } from 'react';

/** Keeps the screen awake, where the browser lets it; asked again when the page comes back into sight. */
export function useAwake(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const ask = (): void => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock
        .request('screen')
        .then((got) => {
          if (over) void got.release();
          else lock = got;
        })
        // Refused on low battery: the run goes on with the screen's own timer.
        .catch(() => undefined);
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, [wanted]);
}

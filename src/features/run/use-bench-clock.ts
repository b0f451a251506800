'use client';

import { useEffect, useState } from 'react';

const TICK_MS = 100;

/** The bench's clock, while it has to be watched; 0 until the page is alive, so that server and browser draw the same. */
export function useBenchClock(running: boolean): number {
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    if (!running) return;
    const tick = (): void => setNowMs(Date.now());
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [running]);
  return nowMs;
}

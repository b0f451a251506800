'use client';

import { useEffect, useState } from 'react';
import type { BenchSupply } from '@/devices/instruments';

/** A supply that feeds itself: its output goes off when this page says nothing for so long, s. Engineering estimate. */
const WATCHDOG_S = 10;

/** A supply that gives less than this share of what is set limits its current. Engineering estimate. */
const LIMITING = 0.9;

interface Fed {
  readonly supply?: BenchSupply;
  /** What the board is fed with. */
  readonly volts: number;
  readonly limitA: number;
  readonly onProblem: (words: string | undefined) => void;
}

/** What the output gives; `limits`: the current, not the voltage, is what holds. */
export interface Output {
  readonly volts: number;
  readonly amps: number;
  readonly limits: boolean;
}

/** The board under power from the supply, watched; nobody who leaves the page leaves it so. */
export function useBoardPower({ supply, volts, limitA, onProblem }: Fed) {
  const [output, setOutput] = useState<Output>();

  async function power(on: boolean): Promise<void> {
    onProblem(undefined);
    if (!supply) return;
    try {
      if (on) await supply.set(volts, limitA);
      await supply.switch(on);
      if (on) await supply.watch(WATCHDOG_S);
      const now = await supply.output();
      setOutput(on ? { ...now, limits: now.volts < LIMITING * volts } : undefined);
    } catch (error) {
      onProblem((error as Error).message);
    }
  }
  useEffect(() => {
    if (!output || !supply) return;
    const feed = setInterval(() => void supply.watch(WATCHDOG_S).catch(() => {}), (WATCHDOG_S / 3) * 1000);
    return () => clearInterval(feed);
  }, [output, supply]);
  // Nobody who leaves this page leaves a board under power.
  useEffect(() => {
    const off = (): void => void supply?.switch(false).catch(() => {});
    addEventListener('pagehide', off);
    return () => {
      removeEventListener('pagehide', off);
      off();
    };
  }, [supply]);
  return { output, power };
}

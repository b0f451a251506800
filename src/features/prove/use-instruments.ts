'use client';

import { useState, useSyncExternalStore } from 'react';
import { bench, Multimeter, type BenchSupply, type Connected } from '@/devices/instruments';
import type { SimulatedBoard } from './simulated-board';

/** What stands on the bench here: real ones where they are connected; else simulated ones, where they may be used. */
export interface Instruments {
  readonly supply?: BenchSupply;
  /** The simulated meter; a real one is the hand's, beside the work. */
  readonly simulatedMeter?: Multimeter;
  /** The real supply by its own name; undefined for a simulated one. */
  readonly supplyName?: string;
  readonly hasRealMeter: boolean;
}

const NONE: readonly Connected[] = [];

export function useInstruments(board: SimulatedBoard, simulators: boolean): Instruments {
  const connected = useSyncExternalStore(bench.subscribe, bench.list, () => NONE);
  const [simulated] = useState(() =>
    simulators ? { supply: board.supplyOnBench, meter: new Multimeter(board.meter) } : undefined,
  );
  const real = connected.findLast((c) => c.supply && !c.isLost);
  const hasRealMeter = connected.some((c) => c.meter && !c.isLost);
  return {
    supply: real?.supply ?? simulated?.supply,
    supplyName: real?.name,
    hasRealMeter,
    simulatedMeter: hasRealMeter ? undefined : simulated?.meter,
  };
}

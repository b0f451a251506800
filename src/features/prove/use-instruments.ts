'use client';

import { useMemo, useState, useSyncExternalStore } from 'react';
import { BenchSupply, Multimeter, SerialInstrument, serialAsker, type TextInstrument } from '@/devices/instruments';
import type { SimulatedBoard } from './simulated-board';

/** What stands on the bench: real ones once they are connected; until then simulated ones, where they may be used. */
export interface Instruments {
  readonly supply?: BenchSupply;
  readonly meter?: Multimeter;
  /** What each real one calls itself; undefined for a simulated one. */
  readonly names: Readonly<Partial<Record<InstrumentKind, string>>>;
  /** Undefined where the browser knows no serial lines. */
  readonly connect?: (kind: InstrumentKind) => Promise<void>;
}

export type InstrumentKind = 'supply' | 'meter';

const neverChanges = (): (() => void) => () => {};

/** Bench supply and multimeter, each simulated or on a serial line of the browser. */
export function useInstruments(board: SimulatedBoard, simulators: boolean): Instruments {
  const [real, setReal] = useState<Partial<Record<InstrumentKind, { instrument: TextInstrument; name: string }>>>({});
  const [simulated] = useState(() =>
    simulators ? { supply: new BenchSupply(board.supply), meter: new Multimeter(board.meter) } : {},
  );
  const hasSerial = useSyncExternalStore(
    neverChanges,
    () => serialAsker() !== undefined,
    () => false,
  );

  async function connect(kind: InstrumentKind): Promise<void> {
    const instrument = new SerialInstrument(await serialAsker()!());
    await instrument.open();
    try {
      const name = await instrument.ask('*IDN?');
      setReal((before) => ({ ...before, [kind]: { instrument, name } }));
    } catch (error) {
      await instrument.close();
      throw error;
    }
  }

  // One and the same object as long as it is the same instrument: what leaves the page switches it off.
  const supply = useMemo(
    () => (real.supply ? new BenchSupply(real.supply.instrument) : simulated.supply),
    [real.supply, simulated],
  );
  const meter = useMemo(
    () => (real.meter ? new Multimeter(real.meter.instrument) : simulated.meter),
    [real.meter, simulated],
  );
  return {
    supply,
    meter,
    names: { supply: real.supply?.name, meter: real.meter?.name },
    connect: hasSerial ? connect : undefined,
  };
}

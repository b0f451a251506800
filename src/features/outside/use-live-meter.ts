'use client';

import { useEffect, useRef, useState } from 'react';
import type { Trace } from '@/core/trace';
import type { MeterDevice, MeterSample } from '@/devices/meter';

/** The drawing is renewed this often while a meter runs, ms. */
const DRAW_EVERY_MS = 250;

export interface LiveMeter {
  /** What has come in so far; undefined while nothing runs or was kept. */
  readonly trace?: Trace;
  readonly running: boolean;
  readonly start: (device: MeterDevice) => void;
  /** Stops and gives what came in. */
  readonly stop: () => Trace | undefined;
}

/** A meter in line, its samples gathered until it is stopped. */
export function useLiveMeter(): LiveMeter {
  const device = useRef<MeterDevice>(undefined);
  const samples = useRef<MeterSample[]>([]);
  const [trace, setTrace] = useState<Trace>();
  const [running, setRunning] = useState(false);
  useEffect(() => () => device.current?.stop(), []);
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => setTrace(asTrace(samples.current)), DRAW_EVERY_MS);
    return () => clearInterval(timer);
  }, [running]);
  return {
    trace,
    running,
    start(next) {
      device.current?.stop();
      samples.current = [];
      device.current = next;
      setRunning(true);
      next.start((s) => samples.current.push(s));
    },
    stop() {
      device.current?.stop();
      setRunning(false);
      setTrace(undefined);
      return asTrace(samples.current);
    },
  };
}

function asTrace(list: readonly MeterSample[]): Trace | undefined {
  if (list.length < 3) return undefined;
  return {
    timesS: Float64Array.from(list, (s) => s.timeS),
    volts: Float64Array.from(list, (s) => s.volts),
    amps: Float64Array.from(list, (s) => s.amps),
  };
}

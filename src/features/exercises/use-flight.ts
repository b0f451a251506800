'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Board } from '@/core/board';
import { MOST_FLIGHT_S, type AirDrill } from '@/core/drill';
import type { HeatCurves } from '@/core/heat';
import { flightTask } from '@/workers/exercise/task';
import { useComputed } from '@/workers/use-worker-task';
import type { AirState } from './air-flight';

/** What lies ahead is computed so far, and anew when so little of it is left, s. */
const AHEAD_S = 60;
const RENEW_S = 15;

/** The run as it truly is and will be with the air as it is set: computed at every turn of the dial, in a worker. */
export function useFlight(
  board: Board,
  drill: AirDrill,
  { phase, flight }: AirState,
  nowS: number,
): { readonly curves?: HeatCurves; readonly problem?: string } {
  const turns = flight.moves.filter((m) => m.do === 'air').length;
  const untilS = Math.min(MOST_FLIGHT_S, AHEAD_S + RENEW_S * Math.floor(nowS / RENEW_S));
  const request = useMemo(
    () => (phase === 'flying' ? { board, drill, flight, untilS } : undefined),
    // A nudge changes nothing of the heat: only turns of the dial do.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [board, drill, phase, turns, untilS],
  );
  const { status, last } = useComputed(flightTask, request);
  return { curves: last?.value, problem: status.kind === 'problem' ? status.message : undefined };
}

/** The page's clock at every frame, while something moves; 0 before. */
export function useFrameClock(running: boolean): number {
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    if (!running) return;
    let frame = requestAnimationFrame(function tick() {
      setNowMs(performance.now());
      frame = requestAnimationFrame(tick);
    });
    return () => cancelAnimationFrame(frame);
  }, [running]);
  return nowMs;
}

'use client';

import { useEffect, useState } from 'react';
import type { Board } from '@/core/board';
import type { HeatPlan, HeatRun, HeatVerdict, Station } from '@/core/heat';
import { runHeatPlan } from '@/workers/heat/client';

export type HeatStatus =
  | { readonly kind: 'running'; readonly doneS: number; readonly totalS: number }
  | { readonly kind: 'done'; readonly tookMs: number }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'problem'; readonly words: string };

export interface HeatAnswerOf {
  readonly plan: HeatPlan;
  readonly station: Station;
  readonly run: HeatRun;
  readonly verdict: HeatVerdict;
}

/** Typing a figure should not start a run per key stroke, ms. */
const SETTLE_MS = 120;

interface Running {
  readonly status: HeatStatus;
  /** The last finished run; it stays on the screen while the next one is computed. */
  readonly last?: HeatAnswerOf;
  readonly cancel: () => void;
  readonly retry: () => void;
}

/** A plan to simulate; with `aim` its dial is set first, and the plan that comes back differs. */
export interface Wish {
  readonly plan: HeatPlan;
  readonly aim: boolean;
}

/**
 * Simulates the plan in a worker whenever it changes; an older run is cancelled.
 * @param onAimed takes the plan whose dial the worker has set.
 */
export function useHeatRun(board: Board, station: Station, wish: Wish, onAimed: (plan: HeatPlan) => void): Running {
  const [status, setStatus] = useState<HeatStatus>({ kind: 'running', doneS: 0, totalS: 1 });
  const [last, setLast] = useState<HeatAnswerOf>();
  const [attempt, setAttempt] = useState(0);
  const [stop, setStop] = useState<() => void>(() => () => {});

  useEffect(() => {
    if (last && last.plan === wish.plan && last.station === station && !wish.aim) return;
    let cancel = (): void => {};
    const timer = setTimeout(() => {
      setStatus({ kind: 'running', doneS: 0, totalS: 1 });
      const started = runHeatPlan({ board, station, ...wish }, (doneS, totalS) =>
        setStatus({ kind: 'running', doneS, totalS }),
      );
      cancel = started.cancel;
      setStop(() => () => {
        started.cancel();
        setStatus({ kind: 'cancelled' });
      });
      void started.answer.then((answer) => {
        if (answer.kind === 'problem') setStatus(answer);
        if (answer.kind !== 'done') return;
        const plan = wish.aim ? answer.plan : wish.plan;
        setLast({ plan, station, run: answer.run, verdict: answer.verdict });
        if (wish.aim) onAimed(plan);
        setStatus({ kind: 'done', tookMs: answer.tookMs });
      });
    }, SETTLE_MS);
    return () => {
      clearTimeout(timer);
      cancel();
    };
    // The last run is read only to skip a plan that has just been aimed and run.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [board, station, wish, attempt]);

  return { status, last, cancel: stop, retry: () => setAttempt((n) => n + 1) };
}

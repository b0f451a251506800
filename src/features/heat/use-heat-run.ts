'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Board } from '@/core/board';
import type { GoalSets, HeatGoals, HeatPlan, HeatRun, HeatVerdict, Station } from '@/core/heat';
import { heatTask } from '@/workers/heat/task';
import type { PlanWish, WishStep } from './plan-wish';

export type HeatStatus =
  | { readonly kind: 'running'; readonly doneS: number; readonly totalS: number }
  | { readonly kind: 'done'; readonly tookMs: number }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'problem'; readonly message: string };

export interface HeatAnswerOf {
  readonly board: Board;
  readonly plan: HeatPlan;
  readonly station: Station;
  readonly goals: HeatGoals;
  readonly run: HeatRun;
  readonly verdict: HeatVerdict;
  readonly tookMs: number;
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
export type HeatRequest = Pick<PlanWish, 'plan' | 'aim'>;

const STARTING: HeatStatus = { kind: 'running', doneS: 0, totalS: 1 };

/**
 * Simulates the plan in a worker whenever it changes; an older run is cancelled.
 * @param onAimed takes the plan whose dial the worker has set.
 */
export function useHeatRun(
  board: Board,
  station: Station,
  goalSets: GoalSets,
  wish: HeatRequest,
  onAimed: (step: WishStep) => void,
): Running {
  const [attempt, setAttempt] = useState(0);
  /** What is asked for now: answers to anything else come too late to count. */
  const asked = useMemo(
    () => ({ board, station, goals: goalSets[wish.plan.alloy], ...wish, attempt }),
    [board, station, goalSets, wish, attempt],
  );
  const [told, setTold] = useState<{ asked: object; status: HeatStatus }>();
  const [stopped, setStopped] = useState<object>();
  const [last, setLast] = useState<HeatAnswerOf>();
  const answered =
    last !== undefined &&
    !asked.aim &&
    last.plan === asked.plan &&
    last.board === asked.board &&
    last.station === asked.station &&
    last.goals === asked.goals;

  useEffect(() => {
    if (answered || stopped === asked) return;
    let cancel = (): void => {};
    const timer = setTimeout(() => {
      const run = heatTask.start(asked, (progress) => setTold({ asked, status: { kind: 'running', ...progress } }));
      cancel = run.cancel;
      void run.answer.then((answer) => {
        if (answer.kind === 'problem') setTold({ asked, status: answer });
        if (answer.kind !== 'done') return;
        const { run, verdict } = answer.value;
        const plan = asked.aim ? answer.value.plan : asked.plan;
        setLast({
          board: asked.board,
          plan,
          station: asked.station,
          goals: asked.goals,
          run,
          verdict,
          tookMs: answer.tookMs,
        });
        if (asked.aim) onAimed({ by: 'aimed', asked: asked.plan, plan });
      });
    }, SETTLE_MS);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [asked, answered, stopped, onAimed]);

  return {
    status: statusOf(answered ? last : undefined, stopped === asked, told?.asked === asked ? told.status : undefined),
    last,
    cancel: () => setStopped(asked),
    retry: () => setAttempt((n) => n + 1),
  };
}

function statusOf(answer: HeatAnswerOf | undefined, stopped: boolean, told: HeatStatus | undefined): HeatStatus {
  if (answer) return { kind: 'done', tookMs: answer.tookMs };
  return stopped ? { kind: 'cancelled' } : (told ?? STARTING);
}

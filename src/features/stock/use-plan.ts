'use client';

import { useEffect, useMemo, useState } from 'react';
import type { AllocationPlan, AllocationProblem } from '@/core/allocation';
import { planQueue } from '@/workers/allocation/client';

export type PlanStatus =
  | { readonly kind: 'running' }
  | { readonly kind: 'done'; readonly plan: AllocationPlan; readonly tookMs: number }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'problem'; readonly message: string };

/** Plans in a worker whenever the queue changes; an older plan is cancelled. */
export function usePlan(problem: AllocationProblem): { status: PlanStatus; cancel: () => void; retry: () => void } {
  const [attempt, setAttempt] = useState(0);
  /** What is asked for now: answers to anything else come too late to count. */
  const asked = useMemo(() => ({ problem, attempt }), [problem, attempt]);
  const [told, setTold] = useState<{ asked: object; status: PlanStatus }>();
  const [stopped, setStopped] = useState<object>();
  const cancelled = stopped === asked;
  useEffect(() => {
    if (cancelled) return;
    const run = planQueue({ problem: asked.problem });
    void run.answer.then((status) => {
      if (status.kind !== 'cancelled') setTold({ asked, status });
    });
    return run.cancel;
  }, [asked, cancelled]);
  const status = cancelled ? ({ kind: 'cancelled' } as const) : told?.asked === asked ? told.status : RUNNING;
  return { status, cancel: () => setStopped(asked), retry: () => setAttempt((n) => n + 1) };
}

const RUNNING: PlanStatus = { kind: 'running' };

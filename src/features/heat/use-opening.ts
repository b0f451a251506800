'use client';

import { useEffect, useState } from 'react';
import type { Board } from '@/core/board';
import type { HeatGoals, HeatPlan, OpeningPlan, Station } from '@/core/heat';
import { openingTask } from '@/workers/opening/task';
import type { WishStep } from './plan-wish';

/** The look for a plan that holds, as far as it has come. */
export interface Opening {
  readonly from: HeatPlan;
  readonly looking: boolean;
  readonly found?: OpeningPlan;
  readonly problem?: string;
}

/**
 * Looks for a plan that holds from the moment a part is chosen.
 * @param from the plan to begin with; undefined ends the look, and what it found stays told.
 * @param onBetter takes every plan that is better than those before.
 */
export function useOpening(
  board: Board,
  station: Station,
  goals: HeatGoals,
  from: HeatPlan | undefined,
  onBetter: (step: WishStep) => void,
): Opening | undefined {
  const [opening, setOpening] = useState<Opening>();
  useEffect(() => {
    if (!from) return;
    const run = openingTask.start({ board, station, plan: from, goals }, (found) => {
      setOpening({ from, looking: true, found });
      onBetter({ by: 'look', from, plan: found.plan });
    });
    void run.answer.then((answer) => {
      if (answer.kind === 'cancelled') return;
      if (answer.kind === 'problem') return setOpening({ from, looking: false, problem: answer.message });
      setOpening({ from, looking: false, found: answer.value });
    });
    return run.cancel;
  }, [board, station, goals, from, onBetter]);
  return opening && { ...opening, looking: opening.looking && opening.from === from };
}

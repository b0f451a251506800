'use client';

import { useEffect, useMemo, useState } from 'react';
import type { Board } from '@/core/board';
import {
  ReducedRunner,
  coversPlan,
  judgeHeat,
  type HeatCurves,
  type HeatGoals,
  type HeatPlan,
  type HeatVerdict,
  type Station,
} from '@/core/heat';
import { reducedTask } from '@/workers/reduced/task';

/** A plan that is being dragged, as the reduced model sees it. */
export interface Preview {
  readonly plan: HeatPlan;
  readonly run: HeatCurves;
  readonly verdict: HeatVerdict;
}

/**
 * Looks at plans of the current family within a frame: the reduced model is built in a worker once the full run is done.
 * @returns undefined until it is there, and for plans it does not cover.
 */
export function usePreview(
  board: Board,
  station: Station,
  plan: HeatPlan,
  goals: HeatGoals,
  idle: boolean,
): (plan: HeatPlan) => Preview | undefined {
  const [built, setBuilt] = useState<{ board: Board; station: Station; runner: ReducedRunner }>();
  const fits =
    built !== undefined && built.board === board && built.station === station && coversPlan(built.runner.model, plan);
  useEffect(() => {
    if (!idle || fits) return;
    const run = reducedTask.start({ board, station, plan });
    void run.answer.then((answer) => {
      if (answer.kind === 'done') setBuilt({ board, station, runner: new ReducedRunner(answer.value) });
    });
    return run.cancel;
  }, [board, station, plan, idle, fits]);
  return useMemo(
    () => (wanted: HeatPlan) => {
      if (!built || built.board !== board || built.station !== station || !coversPlan(built.runner.model, wanted))
        return undefined;
      const run = built.runner.run(wanted);
      return { plan: wanted, run, verdict: judgeHeat(board, wanted, run, goals) };
    },
    [built, board, station, goals],
  );
}

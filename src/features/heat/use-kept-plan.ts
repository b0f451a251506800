'use client';

import { useCallback, useEffect, useRef } from 'react';
import { shownOf, type HeatPlan, type Station } from '@/core/heat';
import type { JobView, KeepEvent } from '@/core/job';
import type { Desk } from './desk';
import type { HeatAnswerOf } from './use-heat-run';

interface Keeping {
  readonly job: JobView;
  readonly station: Station;
  readonly plan: HeatPlan;
  /** What the plan as it stands gave; undefined while that is still computed. */
  readonly fresh?: HeatAnswerOf;
  readonly onKeep: KeepEvent;
}

/** Keeps a plan with what it showed: asked for earlier, it waits for the simulation. */
export function useKeptPlan({ job, station, plan, fresh, onKeep }: Keeping): Pick<Desk, 'kept' | 'keep'> {
  /** Who asked before the simulation was done. */
  const waiting = useRef<((answer: HeatAnswerOf) => void)[]>([]);
  useEffect(() => {
    if (fresh) waiting.current.splice(0).forEach((resolve) => resolve(fresh));
  }, [fresh]);

  const keptPlan = job.state.heatPlan;
  const kept =
    keptPlan !== undefined &&
    keptPlan.stationId === station.id &&
    JSON.stringify(keptPlan.plan) === JSON.stringify(plan);

  const keep = useCallback<Desk['keep']>(
    async (key = crypto.randomUUID(), reason) => {
      const answer = fresh ?? (await new Promise<HeatAnswerOf>((resolve) => waiting.current.push(resolve)));
      const { plan: kept, station: at, verdict } = answer;
      return onKeep(
        job.number,
        { kind: 'heatPlan', plan: kept, stationId: at.id, shown: shownOf(verdict), reason },
        key,
      );
    },
    [job.number, fresh, onKeep],
  );
  return { kept, keep };
}

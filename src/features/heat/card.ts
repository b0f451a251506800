import type { Board } from '@/core/board';
import {
  judgeHeat,
  simulateHeat,
  workplaceOf,
  type GoalSets,
  type HeatPlan,
  type HeatVerdict,
  type Station,
} from '@/core/heat';
import type { JobView } from '@/core/job';

export interface HeatCard {
  readonly job: number;
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
  readonly verdict: HeatVerdict;
}

/** The kept plan of a job, simulated again for its station as it is now; undefined where there is none. */
export function cardOf(job: JobView, stations: readonly Station[], goals: GoalSets): HeatCard | undefined {
  const kept = job.state.heatPlan;
  const station = stations.find((s) => s.id === kept?.stationId);
  if (!kept || !station) return undefined;
  const board = workplaceOf(job.board, kept.plan);
  const run = simulateHeat(board, station, kept.plan, { frames: false })!;
  const verdict = judgeHeat(board, kept.plan, run, goals[kept.plan.alloy]);
  return { job: job.number, board, station, plan: kept.plan, verdict };
}

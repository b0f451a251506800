import { partByRef } from '@/core/board';
import { asPlacing, nozzleFor, startingPlan, workplaceOf, type HeatPlan, type Station } from '@/core/heat';
import type { JobView } from '@/core/job';

/** The part that the job's decision is about, else the likeliest suspect that is on the board. */
export function partOf(job: JobView): string {
  const suspect = job.suspects.find((s) => job.board.parts.some((p) => p.ref === s.ref));
  return partByRef(job.board, job.state.decision?.ref ?? '')?.ref ?? suspect?.ref ?? job.board.ports[0].controller;
}

/** The plan that the work begins with: opened, kept, or the usual one for the part. */
export function firstPlan(job: JobView, station: Station, opened: HeatPlan | undefined): HeatPlan {
  if (opened && partByRef(workplaceOf(job.board, opened), opened.partRef)) return opened;
  const off = (ref: string): boolean => job.state.absent.includes(ref);
  const kept = job.state.heatPlan?.plan;
  // The plan that took a part off is where the plan that puts it back begins.
  if (kept) return kept.purpose === 'lift' && off(kept.partRef) ? asPlacing(kept) : kept;
  const ref = partOf(job);
  const { bodyMm } = job.board.packages[partByRef(job.board, ref)!.package];
  const purpose = off(ref) ? 'place' : 'lift';
  return startingPlan(ref, job.board.alloy, nozzleFor(station.nozzlesMm, bodyMm), purpose);
}

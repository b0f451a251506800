import { runInWorker, type Started } from '../run';
import type { HeatReply, HeatRequest } from './protocol';

/** Runs a heat plan in a worker of its own. */
export function runHeatPlan(
  request: HeatRequest,
  onProgress: (doneS: number, totalS: number) => void,
): Started<HeatReply> {
  const worker = new Worker(new URL('./heat.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<HeatRequest, HeatReply>(
    worker,
    request,
    ({ doneS, totalS }) => onProgress(doneS, totalS),
    'The simulation’s worker ended unexpectedly. Change the plan or try again.',
  );
}

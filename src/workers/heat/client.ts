import { runInWorker, type Started } from '../run';
import type { HeatReply, HeatRequest } from './protocol';

/** Workers that have run a plan and wait for the next: a warm one takes half the time (measured). */
const idle: Worker[] = [];
const MOST_IDLE = 2;

function keep(worker: Worker): void {
  if (idle.length < MOST_IDLE) idle.push(worker);
  else worker.terminate();
}

/** Runs a heat plan in a worker that does nothing else meanwhile. */
export function runHeatPlan(
  request: HeatRequest,
  onProgress: (doneS: number, totalS: number) => void,
): Started<HeatReply> {
  const worker = idle.pop() ?? new Worker(new URL('./heat.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<HeatRequest, HeatReply>(
    worker,
    request,
    ({ doneS, totalS }) => onProgress(doneS, totalS),
    'The simulation’s worker ended unexpectedly. Change the plan or try again.',
    keep,
  );
}

import { runInWorker, type Started } from '../run';
import type { ReducedReply, ReducedRequest } from './protocol';

/** Builds the reduced model of a plan's family in a worker. */
export function reduceInWorker(request: ReducedRequest): Started<ReducedReply> {
  const worker = new Worker(new URL('./reduced.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<ReducedRequest, ReducedReply>(
    worker,
    request,
    () => {},
    'The reduced model’s worker ended unexpectedly. Dragging waits for the full run.',
  );
}

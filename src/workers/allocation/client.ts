import { runInWorker, type Started } from '../run';
import type { AllocationReply, AllocationRequest } from './protocol';

/** Plans the queue in a worker of its own. */
export function planQueue(request: AllocationRequest): Started<AllocationReply> {
  const worker = new Worker(new URL('./allocation.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<AllocationRequest, AllocationReply>(
    worker,
    request,
    () => {},
    'The plan’s worker ended unexpectedly. Try again.',
  );
}

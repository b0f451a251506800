import { runInWorker, type Started } from '../run';
import type { ClearingReply, ClearingRequest } from './protocol';

/** Plans clearing and lifting in a worker of its own. */
export function planClearingInWorker(request: ClearingRequest): Started<ClearingReply> {
  const worker = new Worker(new URL('./clearing.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<ClearingRequest, ClearingReply>(
    worker,
    request,
    () => {},
    'The worker that plans the clearing ended unexpectedly. Try again.',
  );
}

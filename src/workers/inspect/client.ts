import { runInWorker, type Started } from '../run';
import type { InspectReply, InspectRequest } from './protocol';

/** Looks a picture over in a worker of its own. */
export function inspectInWorker(request: InspectRequest): Started<InspectReply> {
  const worker = new Worker(new URL('./inspect.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<InspectRequest, InspectReply>(
    worker,
    request,
    () => {},
    'The worker that looks at pictures ended unexpectedly. Try again.',
  );
}

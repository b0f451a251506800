import { runInWorker, type Started } from '../run';
import type { StraightenReply, StraightenRequest } from './protocol';

/** Lays a photograph flat, or looks one over for parts, in a worker of its own. */
export function straightenInWorker(request: StraightenRequest): Started<StraightenReply> {
  const worker = new Worker(new URL('./straighten.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<StraightenRequest, StraightenReply>(
    worker,
    request,
    () => {},
    'The worker that looks at photographs ended unexpectedly. Try again.',
  );
}

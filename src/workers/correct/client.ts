import { runInWorker, type Started } from '../run';
import type { CorrectReply, CorrectRequest } from './protocol';

/** Works out how a run goes on after what was seen, in a worker of its own. */
export function correctInWorker(request: CorrectRequest): Started<CorrectReply> {
  const worker = new Worker(new URL('./correct.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<CorrectRequest, CorrectReply>(
    worker,
    request,
    () => undefined,
    'The correction’s worker ended unexpectedly. Not swimming: do not pull; air away if in doubt.',
  );
}

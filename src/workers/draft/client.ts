import { runInWorker, type Started } from '../run';
import type { DraftReply, DraftRequest } from './protocol';

/** Reads a board's file in a worker of its own: a board of thousands of parts takes seconds. */
export function draftInWorker(request: DraftRequest): Started<DraftReply> {
  const worker = new Worker(new URL('./draft.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<DraftRequest, DraftReply>(
    worker,
    request,
    () => {},
    'The worker that reads the board ended unexpectedly.',
  );
}

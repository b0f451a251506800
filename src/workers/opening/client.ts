import type { OpeningPlan } from '@/core/heat';
import { runInWorker, type Started } from '../run';
import type { SearchRequest } from '../search/protocol';
import type { OpeningReply } from './protocol';

/** Looks for a plan that holds in a worker of its own, and tells every better one at once. */
export function lookInWorker(request: SearchRequest, onBetter: (found: OpeningPlan) => void): Started<OpeningReply> {
  const worker = new Worker(new URL('./opening.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<SearchRequest, OpeningReply>(
    worker,
    request,
    ({ found }) => onBetter(found),
    'The worker that looks for a plan ended unexpectedly. Search a plan by hand.',
  );
}

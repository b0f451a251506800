import { runInWorker, type Started } from '../run';
import type { SearchReply, SearchRequest } from './protocol';

/** Searches a heat plan in a worker of its own. */
export function searchInWorker(
  request: SearchRequest,
  onProgress: (told: Extract<SearchReply, { kind: 'progress' }>) => void,
): Started<SearchReply> {
  const worker = new Worker(new URL('./search.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<SearchRequest, SearchReply>(
    worker,
    request,
    onProgress,
    'The search’s worker ended unexpectedly. Try again.',
  );
}

import { searchPlan } from '@/core/heat';
import type { SearchReply, SearchRequest } from './protocol';

const post = (reply: SearchReply): void => self.postMessage(reply);

self.onmessage = ({ data: { board, station, plan, goals } }: MessageEvent<SearchRequest>): void => {
  const start = performance.now();
  try {
    const found = searchPlan(board, station, plan, {
      goals,
      onProgress: (tried, most) => post({ kind: 'progress', tried, most, tookMs: performance.now() - start }),
    });
    if (found) post({ kind: 'done', found });
  } catch (error) {
    post({ kind: 'problem', message: `The search stopped: ${(error as Error).message}` });
  }
};

import { openingPlan } from '@/core/heat';
import type { SearchRequest } from '../search/protocol';
import type { OpeningReply } from './protocol';

const post = (reply: OpeningReply): void => self.postMessage(reply);

self.onmessage = ({ data: { board, station, plan, goals } }: MessageEvent<SearchRequest>): void => {
  const start = performance.now();
  try {
    const found = openingPlan(board, station, plan, { goals, onBetter: (b) => post({ kind: 'progress', found: b }) });
    post({ kind: 'done', found, tookMs: performance.now() - start });
  } catch (error) {
    post({ kind: 'problem', message: `The look for a plan stopped: ${(error as Error).message}` });
  }
};

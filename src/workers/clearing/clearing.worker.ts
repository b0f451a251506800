import { planClearing } from '@/core/clearing';
import type { ClearingReply, ClearingRequest } from './protocol';

const post = (reply: ClearingReply): void => self.postMessage(reply);

self.onmessage = ({ data }: MessageEvent<ClearingRequest>): void => {
  const start = performance.now();
  try {
    const plan = planClearing(data);
    if (!plan) return post({ kind: 'problem', message: `Expected a part of this board; got ${data.plan.partRef}.` });
    post({ kind: 'done', plan, tookMs: performance.now() - start });
  } catch (error) {
    post({ kind: 'problem', message: `The plan for clearing stopped: ${(error as Error).message}` });
  }
};

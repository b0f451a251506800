import { allocate } from '@/core/allocation';
import { problemText } from '@/core/result';
import type { AllocationReply, AllocationRequest } from './protocol';
import { loadSolver } from './solver';

const post = (reply: AllocationReply): void => self.postMessage(reply);

self.onmessage = async ({ data }: MessageEvent<AllocationRequest>): Promise<void> => {
  const start = performance.now();
  try {
    const plan = allocate(data.problem, await loadSolver());
    post(
      plan.ok
        ? { kind: 'done', plan: plan.value, tookMs: performance.now() - start }
        : { kind: 'problem', message: problemText(plan.problems) },
    );
  } catch (error) {
    post({ kind: 'problem', message: `The plan stopped: ${(error as Error).message}` });
  }
};

import type { HeatReply, HeatRequest } from './protocol';

export type HeatAnswer = Exclude<HeatReply, { kind: 'progress' }> | { readonly kind: 'cancelled' };

/**
 * Runs a heat plan in a worker of its own.
 * @returns the answer, and a way to cancel; a crash of the worker comes back as a problem that can be tried again.
 */
export function runHeatPlan(
  request: HeatRequest,
  onProgress: (doneS: number, totalS: number) => void,
): { answer: Promise<HeatAnswer>; cancel: () => void } {
  const worker = new Worker(new URL('./heat.worker.ts', import.meta.url), { type: 'module' });
  let settle: (answer: HeatAnswer) => void = () => {};
  const answer = new Promise<HeatAnswer>((resolve) => (settle = resolve));
  const end = (result: HeatAnswer): void => {
    worker.terminate();
    settle(result);
  };
  worker.onmessage = ({ data }: MessageEvent<HeatReply>) => {
    if (data.kind === 'progress') onProgress(data.doneS, data.totalS);
    else end(data);
  };
  const crashed = (): void =>
    end({ kind: 'problem', words: 'The simulation’s worker ended unexpectedly. Change the plan or try again.' });
  worker.onerror = crashed;
  worker.onmessageerror = crashed;
  worker.postMessage(request);
  return { answer, cancel: () => end({ kind: 'cancelled' }) };
}

import { problemText, type Result } from '../core/result';
import type { AnyTask, ProgressOf, RequestOf, TaskReply, ValueOf } from './task';

interface Serving<Task> {
  /** What is said before the reason when the computation throws: "The search stopped". */
  readonly stopped: string;
  readonly compute: (
    request: RequestOf<Task>,
    tell: (progress: ProgressOf<Task>) => void,
  ) => Result<ValueOf<Task>> | Promise<Result<ValueOf<Task>>>;
  /** What of the value changes hands in place of being copied. */
  readonly moved?: (value: ValueOf<Task>) => Transferable[];
}

/** The worker's side of a task: every request is answered with its value, or with the sentence that says why there is none. */
export function serveTask<Task extends AnyTask>({ stopped, compute, moved }: Serving<Task>): void {
  type Reply = TaskReply<ValueOf<Task>, ProgressOf<Task>>;
  self.onmessage = async ({ data }: MessageEvent<RequestOf<Task>>): Promise<void> => {
    const start = performance.now();
    const tookMs = (): number => performance.now() - start;
    const post = (reply: Reply, transfer: Transferable[] = []): void => self.postMessage(reply, { transfer });
    try {
      const made = await compute(data, (progress) => post({ kind: 'progress', progress, tookMs: tookMs() }));
      if (made.ok) post({ kind: 'done', value: made.value, tookMs: tookMs() }, moved?.(made.value));
      else post({ kind: 'problem', message: problemText(made.problems) });
    } catch (error) {
      post({ kind: 'problem', message: `${stopped}: ${(error as Error).message}` });
    }
  };
}

/** Tells no more often than that: what comes between is left out. */
export function atMostEvery<Progress>(
  everyMs: number,
  tell: (progress: Progress) => void,
): (progress: Progress) => void {
  let toldMs = performance.now();
  return (progress) => {
    const nowMs = performance.now();
    if (nowMs - toldMs < everyMs) return;
    toldMs = nowMs;
    tell(progress);
  };
}

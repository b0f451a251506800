import { useCallback, useEffect, useRef, useState } from 'react';
import type { Started, TaskAnswer, WorkerTask } from './task';

/** Where a request stands. */
export type TaskStatus<Value, Progress = never> =
  | { readonly kind: 'idle' }
  | { readonly kind: 'running'; readonly progress?: Progress; readonly tookMs?: number }
  | TaskAnswer<Value>;

const IDLE = { kind: 'idle' } as const;
const RUNNING = { kind: 'running' } as const;

/**
 * A task that is asked for by a press: the last request counts, an older one is cancelled, and so is what runs when the page is left.
 * @returns `start` gives the answer as well, for what is done with it once.
 */
export function useWorkerTask<Request, Value, Progress>(task: WorkerTask<Request, Value, Progress>) {
  const [status, setStatus] = useState<TaskStatus<Value, Progress>>(IDLE);
  const running = useRef<Started<Value>>(undefined);
  useEffect(() => () => running.current?.cancel(), []);
  const start = useCallback(
    async (request: Request): Promise<TaskAnswer<Value>> => {
      running.current?.cancel();
      setStatus(RUNNING);
      const run = task.start(request, (progress, tookMs) => setStatus({ kind: 'running', progress, tookMs }));
      running.current = run;
      const answer = await run.answer;
      if (running.current === run) setStatus(answer);
      return answer;
    },
    [task],
  );
  const cancel = useCallback(() => running.current?.cancel(), []);
  const reset = useCallback(() => setStatus(IDLE), []);
  return { status, start, cancel, reset };
}

/** The value of the last request that was answered; it stays while a newer one is computed. */
export interface Computed<Request, Value, Progress = never> {
  readonly status: TaskStatus<Value, Progress>;
  readonly last?: { readonly request: Request; readonly value: Value; readonly tookMs: number };
  readonly cancel: () => void;
  readonly retry: () => void;
}

interface ComputedOptions<Progress> {
  /** Begins so much later: while a hand is at work nothing is computed, ms. */
  readonly afterMs?: number;
  readonly onProgress?: (progress: Progress) => void;
}

/**
 * What a task gives for a request, computed whenever the request is another object; an older one is cancelled.
 * @param request undefined asks for nothing.
 */
export function useComputed<Request extends object, Value, Progress>(
  task: WorkerTask<Request, Value, Progress>,
  request: Request | undefined,
  { afterMs = 0, onProgress }: ComputedOptions<Progress> = {},
): Computed<Request, Value, Progress> {
  const [told, setTold] = useState<{ of: Request; status: TaskStatus<Value, Progress> }>();
  const [last, setLast] = useState<Computed<Request, Value>['last']>();
  const [attempt, setAttempt] = useState(0);
  const run = useRef<Started<Value>>(undefined);
  useEffect(() => {
    if (!request) return;
    const begin = (): void => {
      const started = task.start(request, (progress, tookMs) => {
        setTold({ of: request, status: { kind: 'running', progress, tookMs } });
        onProgress?.(progress);
      });
      run.current = started;
      void started.answer.then((answer) => {
        if (run.current !== started) return;
        setTold({ of: request, status: answer });
        if (answer.kind === 'done') setLast({ request, value: answer.value, tookMs: answer.tookMs });
      });
    };
    const timer = afterMs > 0 ? setTimeout(begin, afterMs) : begin();
    return () => {
      clearTimeout(timer ?? undefined);
      const started = run.current;
      run.current = undefined;
      started?.cancel();
    };
  }, [task, request, afterMs, onProgress, attempt]);
  const status = !request ? IDLE : told?.of === request ? told.status : RUNNING;
  const retry = useCallback(() => {
    setTold(undefined);
    setAttempt((n) => n + 1);
  }, []);
  return { status, last, cancel: useCallback(() => run.current?.cancel(), []), retry };
}

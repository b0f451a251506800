/** What a worker says of a request; times are measured in the worker. */
export type TaskReply<Value, Progress> =
  | { readonly kind: 'progress'; readonly progress: Progress; readonly tookMs: number }
  | { readonly kind: 'done'; readonly value: Value; readonly tookMs: number }
  | { readonly kind: 'problem'; readonly message: string };

/** How a request ends. */
export type TaskAnswer<Value> =
  Exclude<TaskReply<Value, never>, { readonly kind: 'progress' }> | { readonly kind: 'cancelled' };

export interface Started<Value> {
  readonly answer: Promise<TaskAnswer<Value>>;
  readonly cancel: () => void;
}

/** One kind of long computation: asked with plain data, done in a worker that does nothing else meanwhile. */
export interface WorkerTask<Request, Value, Progress = never> {
  readonly start: (request: Request, onProgress?: (progress: Progress, tookMs: number) => void) => Started<Value>;
}

export type AnyTask = WorkerTask<never, unknown, unknown>;
export type RequestOf<Task> = Task extends WorkerTask<infer Request, unknown, unknown> ? Request : never;
export type ValueOf<Task> = Task extends WorkerTask<never, infer Value, unknown> ? Value : never;
export type ProgressOf<Task> = Task extends WorkerTask<never, unknown, infer Progress> ? Progress : never;

interface TaskDefinition {
  /** Makes the worker; the address of its file stands there in words, for the bundler to find. */
  readonly worker: () => Worker;
  /** What is said when it ends without an answer, and what to do then. */
  readonly crashed: string;
  /** Workers that have answered and wait for the next request: a warm one takes half the time of a new one (measured on heat runs). */
  readonly idle?: number;
}

/**
 * A task of its own: the worker ends with its answer, or when it is cancelled; a crash comes back as a problem that can be tried
 * again. The worker's side is `serveTask`.
 */
export function defineWorkerTask<Request, Value, Progress = never>({
  worker: make,
  crashed,
  idle: most = 0,
}: TaskDefinition): WorkerTask<Request, Value, Progress> {
  const idle: Worker[] = [];
  const free = (worker: Worker): void => {
    if (idle.length < most) idle.push(worker);
    else worker.terminate();
  };
  const start: WorkerTask<Request, Value, Progress>['start'] = (request, onProgress) => {
    const worker = idle.pop() ?? make();
    let settle: (answer: TaskAnswer<Value>) => void = () => {};
    const answer = new Promise<TaskAnswer<Value>>((resolve) => (settle = resolve));
    let ended = false;
    const end = (result: TaskAnswer<Value>): void => {
      // A worker that was freed may serve somebody else by now.
      if (ended) return;
      ended = true;
      if (result.kind === 'done') free(worker);
      else worker.terminate();
      settle(result);
    };
    worker.onmessage = ({ data }: MessageEvent<TaskReply<Value, Progress>>) => {
      if (data.kind === 'progress') onProgress?.(data.progress, data.tookMs);
      else end(data);
    };
    worker.onerror = worker.onmessageerror = () => end({ kind: 'problem', message: crashed });
    worker.postMessage(request);
    return { answer, cancel: () => end({ kind: 'cancelled' }) };
  };
  return { start };
}

/** The part that every worker client shares: one request, progress, an answer, and an end. */

export type Answer<Reply extends { readonly kind: string }> =
  | Exclude<Reply, { kind: 'progress' }>
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'problem'; readonly message: string };

export interface Started<Reply extends { readonly kind: string }> {
  readonly answer: Promise<Answer<Reply>>;
  readonly cancel: () => void;
}

/**
 * Sends one request to a worker of its own. The worker ends with its answer, or when it is cancelled; a crash comes back
 * as a problem that can be tried again.
 * @param keep takes a worker that has answered, in place of its end: the next request finds its code compiled.
 */
export function runInWorker<Request, Reply extends { readonly kind: string }>(
  worker: Worker,
  request: Request,
  onProgress: (reply: Extract<Reply, { kind: 'progress' }>) => void,
  crashMessage: string,
  keep: (worker: Worker) => void = (idle) => idle.terminate(),
): Started<Reply> {
  let settle: (answer: Answer<Reply>) => void = () => {};
  const answer = new Promise<Answer<Reply>>((resolve) => (settle = resolve));
  let ended = false;
  const end = (result: Answer<Reply>): void => {
    // A worker that was kept may serve somebody else by now.
    if (ended) return;
    ended = true;
    if (result.kind === 'cancelled' || result.kind === 'problem') worker.terminate();
    else keep(worker);
    settle(result);
  };
  worker.onmessage = ({ data }: MessageEvent<Reply>) => {
    if (data.kind === 'progress') onProgress(data as Extract<Reply, { kind: 'progress' }>);
    else end(data as Answer<Reply>);
  };
  const crashed = (): void => end({ kind: 'problem', message: crashMessage });
  worker.onerror = crashed;
  worker.onmessageerror = crashed;
  worker.postMessage(request);
  return { answer, cancel: () => end({ kind: 'cancelled' }) };
}

import { heatTask, type HeatAnswer, type HeatRequest } from './task';

/** As many workers as the machine is sure to have cores for. */
const WORKERS = 2;

/**
 * Runs several plans or stations side by side, two at a time, each in a worker of its own.
 * @returns the answers in the order of the requests; undefined where one was cancelled or failed.
 */
export function runSideBySide(requests: readonly HeatRequest[]): {
  readonly answers: Promise<HeatAnswer[] | undefined>;
  readonly cancel: () => void;
} {
  const running = new Set<() => void>();
  const answers: HeatAnswer[] = [];
  let next = 0;
  let stopped = false;
  const lane = async (): Promise<void> => {
    while (next < requests.length && !stopped) {
      const at = next++;
      const run = heatTask.start(requests[at]);
      running.add(run.cancel);
      const answer = await run.answer;
      running.delete(run.cancel);
      if (answer.kind === 'done') answers[at] = answer.value;
      else stopped = true;
    }
  };
  return {
    answers: Promise.all(Array.from({ length: WORKERS }, lane)).then(() => (stopped ? undefined : answers)),
    cancel: () => {
      stopped = true;
      for (const cancel of running) cancel();
    },
  };
}

import type { JobEvent } from '../log';

/** Longer than this between two entries, the bench did something else. Engineering estimate. */
const LONGEST_GAP_MIN = 10;

/** Minutes of bench work by the times of its entries, since the job last came back: each gap, up to ten minutes of it. */
export function benchMinutes(events: readonly Pick<JobEvent, 'at' | 'body'>[]): number {
  const since = events.findLastIndex((e) => e.body.kind === 'reopen') + 1;
  const times = events
    .slice(since)
    .map((e) => Date.parse(e.at))
    .sort((a, b) => a - b);
  const gaps = times.slice(1).map((at, k) => (at - times[k]) / 60_000);
  return Math.round(gaps.reduce((sum, gap) => sum + Math.min(gap, LONGEST_GAP_MIN), 0));
}

import type { HistoryFlag } from '@/core/diagnose';
import { storyShift, type JobView } from '@/core/job';

/** How much likelier than without its story a part has to be to be named. Engineering estimate. */
const MOVED = 1.15;

/** Where to look first after what the owner said. */
export function storyHeadline(job: JobView, history: readonly HistoryFlag[]): string {
  const moved = storyShift(job.board, history, job.practice, 12).filter(
    (s) => s.ref !== 'outside' && s.p > s.before * MOVED,
  );
  if (moved.length === 0) return 'No history: the usual order of suspects';
  const names = moved.slice(0, 3).map((s) => s.ref);
  return `Look at ${names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]}` : names[0]} first`;
}

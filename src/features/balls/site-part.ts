import { partByRef, type Part } from '@/core/board';
import type { JobView } from '@/core/job';

/** The part whose site is made ready: the one off the board, else the one decided on. */
export function siteRef(job: JobView): string | undefined {
  return job.state.absent[0] ?? partByRef(job.board, job.state.decision?.ref ?? '')?.ref;
}

export const sitePart = (job: JobView): Part | undefined => partByRef(job.board, siteRef(job) ?? '');

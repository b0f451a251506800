import { landsOf, partByRef, type Part } from '@/core/board';
import type { JobView } from '@/core/job';

/** The part whose site is made ready: the one asked for, else the one off the board, else the one decided on. */
export const sitePart = (job: JobView, asked?: string): Part | undefined =>
  partByRef(job.board, asked ?? '') ??
  partByRef(job.board, job.state.absent[0] ?? '') ??
  partByRef(job.board, job.state.decision?.ref ?? '');

/** With fewer pads a part needs no plan of its own. */
const LEAST_PADS = 6;

/** Parts of a board whose sites are worth a plan. */
export const partsWithSites = ({ board }: JobView): Part[] =>
  board.parts.filter((p) => landsOf(board.packages[p.package]).length >= LEAST_PADS);

import 'server-only';
import { STAGES, viewJob, type StageId } from '@/core/job';
import { findBoard } from '@/db/boards';
import { database } from '@/db/client';
import { findPractice } from '@/db/knowledge';
import { jobEventsOf, jobSummaries } from '@/db/jobs';

/** One open job as the bench sees it. */
export interface BenchRow {
  readonly number: number;
  readonly device: string;
  readonly symptom: string;
  readonly stage: StageId;
  readonly stageIndex: number;
  /** The newest finding along the path. */
  readonly found: string;
  readonly next: string;
  readonly minutes?: number;
  readonly urgent: boolean;
  readonly openedAt: string;
}

export interface Bench {
  readonly open: readonly BenchRow[];
  readonly closedCount: number;
}

/** Only so many open jobs are worked out for the bench, swollen packs and then the newest first; the rest is in Jobs. */
const MOST_ROWS = 40;

/** The open jobs with their next step, what is urgent first, then the shortest step. */
export async function loadBench(): Promise<Bench> {
  const db = await database();
  const rows: BenchRow[] = [];
  const practice = await findPractice(db);
  const all = await jobSummaries(db);
  const openJobs = all.filter((job) => job.outcome === undefined).sort((a, b) => Number(b.swollen) - Number(a.swollen));
  for (const job of openJobs.slice(0, MOST_ROWS)) {
    const board = await findBoard(db, job.boardId);
    if (!board) continue;
    const view = viewJob(job.number, job.openedAt, board, await jobEventsOf(db, job.number), { practice });
    const { stage, title, minutes } = view.next;
    const found =
      STAGES.map(({ id }) => view.findings[id])
        .filter(Boolean)
        .pop() ?? '';
    rows.push({
      number: job.number,
      device: board.device,
      symptom: view.state.story?.symptom ?? '',
      stage,
      stageIndex: STAGES.findIndex((s) => s.id === stage),
      found,
      next: title,
      minutes,
      urgent: view.state.story?.pack === 'swollen' && !view.state.packOut,
      openedAt: job.openedAt,
    });
  }
  const weight = (r: BenchRow): number => (r.urgent ? -1000 : (r.minutes ?? 20));
  return { open: rows.sort((a, b) => weight(a) - weight(b)), closedCount: all.length - openJobs.length };
}

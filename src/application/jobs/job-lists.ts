import type { JobNumber } from '../../core/identities';
import { STAGES, type StageId } from '../../core/job';
import { listBoards, listBoardsInUse, readBoard } from '../../db/boards';
import {
  keepStep,
  keptSteps,
  openJobs,
  queryJobs,
  refreshSummaries,
  runningSoaks,
  type JobSummary,
} from '../../db/job-summaries';
import { knowledgeOf } from '../../db/knowledge';
import type { UnreadableRow } from '../../db/readable';
import type { Session } from '../../db/session';
import { databaseProblem } from '../database-problem';
import { loadJob } from './load-job';

/** A job in a list: no more than a line shows, since a page has many. */
export interface JobLine extends Pick<JobSummary, 'number' | 'symptom' | 'outcome' | 'training' | 'openedAt'> {
  readonly device: string;
  /** Why it cannot be opened, where its board cannot be read. */
  readonly problem?: string;
}

export interface JobPage {
  readonly jobs: readonly JobLine[];
  /** Jobs that were found, and those among them that are open. */
  readonly total: number;
  readonly open: number;
  /** All jobs there are. */
  readonly all: number;
  readonly find: string;
  /** From 0. */
  readonly page: number;
  readonly pages: number;
}

/** Jobs on one page of the list. */
const PAGE = 60;
const MOST_WORDS = 8;

/** A page of the jobs that have all words in their number, device, symptom or outcome, newest first. */
export async function loadJobPage(db: Session, find = '', page = 0): Promise<JobPage> {
  await whereWritable(() => refreshSummaries(db));
  const words = find.trim().toLowerCase().split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
  const marks: UnreadableRow[] = [];
  const boards = await listBoards(db, marks);
  const deviceOf = new Map(boards.map((b) => [b.id, `${b.device}, ${b.name}`]));
  const boardsByWord = words.map((w) =>
    [...deviceOf].flatMap(([id, device]) => (device.toLowerCase().includes(w) ? [id] : [])),
  );
  const query = { words, boardsByWord, limit: PAGE, offset: page * PAGE };
  const [{ jobs, total }, { total: open }, { total: all }] = await Promise.all([
    queryJobs(db, query),
    queryJobs(db, { ...query, state: 'open', limit: 0, offset: 0 }),
    queryJobs(db, { limit: 0 }),
  ]);
  return {
    jobs: jobs.map((j) => ({
      ...j,
      device: deviceOf.get(j.boardId) ?? j.boardId,
      problem: deviceOf.has(j.boardId)
        ? undefined
        : (problemOf(marks, j.boardId) ?? 'Its board is not in the library.'),
    })),
    ...{ total, open, all, find, page, pages: Math.max(1, Math.ceil(total / PAGE)) },
  };
}

const problemOf = (marks: readonly UnreadableRow[], id: string): string | undefined =>
  marks.find((m) => m.id === id)?.problem;

/** The boards that a new job can be opened on, and those that cannot be read. */
export async function loadBoardChoices(
  db: Session,
): Promise<{ boards: { id: string; name: string }[]; unreadable: UnreadableRow[] }> {
  const unreadable: UnreadableRow[] = [];
  const boards = await listBoardsInUse(db, unreadable);
  return {
    boards: boards.map((b) => ({ id: b.id, name: `${b.device}, ${b.name}, revision ${b.revision}` })),
    unreadable,
  };
}

/** A soak that runs somewhere on the bench. */
export interface SoakClock {
  readonly job: JobNumber;
  readonly startedAt: string;
  readonly minutes: number;
}

/** The soaks that run now, in all jobs. What they are computed from is on disk: they go on through a restart. */
export async function loadSoakClocks(db: Session): Promise<SoakClock[]> {
  return (await runningSoaks(db)).map(({ job, soak: { startedAt, minutes } }) => ({ job, startedAt, minutes }));
}

/** One open job as the bench sees it. */
export interface BenchRow {
  readonly number: JobNumber;
  readonly device: string;
  readonly symptom: string;
  readonly stage: StageId;
  readonly stageIndex: number;
  /** The newest finding along the path. */
  readonly found: string;
  readonly next: string;
  readonly minutes?: number;
  /** It waits for something that is not due yet. */
  readonly waits?: boolean;
  readonly urgent: boolean;
  /** A job to learn on. */
  readonly training: boolean;
  readonly openedAt: string;
  /** Why nothing more is said of it, where its board cannot be read. */
  readonly problem?: string;
}

export interface BenchOverview {
  readonly open: readonly BenchRow[];
  readonly closedCount: number;
}

/** Only so many open jobs are on the bench, swollen packs and then the newest first; the rest is in Jobs. */
const MOST_ROWS = 40;

/** What is kept of a job's diagnosis for the bench. */
type Step = Pick<BenchRow, 'device' | 'stage' | 'found' | 'next' | 'minutes' | 'urgent'> & {
  /** What it waits for, and until when. */
  readonly awaits?: { readonly what: string; readonly byAt: string };
};

/** Who waits for something is not taken up before it is there; to ask for what is overdue takes as long as a call, minutes. */
const ASK_MIN = 3;

/**
 * The open jobs with their next step, what is urgent first, then the shortest step. A step that was computed of the same record
 * and knowledge is read, not computed again.
 */
export async function loadBench(db: Session): Promise<BenchOverview> {
  await whereWritable(() => refreshSummaries(db));
  const [open, { total: closedCount }] = await Promise.all([
    openJobs(db, MOST_ROWS),
    queryJobs(db, { state: 'closed', limit: 0 }),
  ]);
  const knowledge = new Map<string, string>();
  for (const id of new Set(open.map((j) => j.boardId))) knowledge.set(id, (await knowledgeOf(db, id)).basis);
  const numbers = open.map((j) => j.number);
  const kept = await keptSteps(db, numbers);
  const rows: BenchRow[] = [];
  for (const job of open) {
    const basis = JSON.stringify([job.version, job.boardId, job.boardRevision, knowledge.get(job.boardId)]);
    const known = kept.get(job.number);
    rows.push(known?.basis === basis ? rowOf(job, known.step as Step) : await computedRow(db, job, basis));
  }
  // Owners wait for real devices: a job to learn on comes after them.
  const weight = (r: BenchRow): number =>
    (r.training ? 10_000 : 0) + (r.waits ? 1000 : 0) + (r.urgent ? -1000 : (r.minutes ?? 20));
  return { open: rows.sort((a, b) => weight(a) - weight(b)), closedCount };
}

const rowOf = (job: JobSummary, { awaits, ...step }: Step): BenchRow => ({
  ...step,
  ...(awaits && !step.urgent && waiting(awaits)),
  number: job.number,
  symptom: job.symptom,
  training: job.training,
  stageIndex: STAGES.findIndex((s) => s.id === step.stage),
  openedAt: job.openedAt,
});

/** What comes next at a job that waits for something. */
function waiting({ what, byAt }: NonNullable<Step['awaits']>): Pick<BenchRow, 'next' | 'minutes' | 'waits'> {
  const day = byAt.slice(0, 10);
  return Date.parse(byAt) < Date.now()
    ? { next: `Ask for ${what}: it was expected ${day}`, minutes: ASK_MIN }
    : { next: `Waits for ${what}, expected ${day}`, minutes: undefined, waits: true };
}

async function computedRow(db: Session, job: JobSummary, basis: string): Promise<BenchRow> {
  const view = await loadJob(db, job.number);
  if (!view.ok) {
    const board = await readBoard(db, job.boardId, job.boardRevision);
    const problem = board.ok ? 'It cannot be read.' : board.problems[0].message;
    const step: Step = {
      device: job.boardId,
      stage: 'arrive',
      found: '',
      next: 'Cannot be shown',
      urgent: job.swollen,
    };
    return { ...rowOf(job, step), problem };
  }
  const { board, next, findings, state } = view.value;
  const found =
    STAGES.map(({ id }) => findings[id])
      .filter(Boolean)
      .pop() ?? '';
  const urgent = state.story?.pack === 'swollen' && !state.packOut;
  const step: Step = {
    ...{ device: board.device, stage: next.stage, found, next: next.title, urgent },
    ...(next.minutes !== undefined && { minutes: next.minutes }),
    ...(state.delivery?.byAt && { awaits: { what: state.delivery.what, byAt: state.delivery.byAt } }),
  };
  await whereWritable(() => keepStep(db, job.number, step, basis));
  return rowOf(job, step);
}

/** What only saves time is not kept where the disk does not take it; the page is shown all the same. */
async function whereWritable(write: () => Promise<void>): Promise<void> {
  try {
    await write();
  } catch (error) {
    if (!databaseProblem(error)) throw error;
  }
}

import type { JobNumber } from '../../core/identities';
import { createHash } from 'node:crypto';
import type { Board } from '../../core/board';
import {
  fitToBoard,
  type BenchKnowledge,
  type JobEvent,
  type JobPurpose,
  type JobQuestion,
  type JobView,
} from '../../core/job';
import { fail, ok, type Result } from '../../core/result';
import { withGoodBoards } from '../../core/sketch';
import { readBoard } from '../../db/boards';
import { findJob, jobEventsOf, type JobRow } from '../../db/jobs';
import { isDemoWorld, knowledgeOf } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { work } from '../../server-work/pool';
import type { ViewRequest } from '../../server-work/tasks';

/** A job as it lies in the database: its row, the board file it is on, and its record. */
export interface JobRecord {
  readonly row: JobRow;
  readonly board: Board;
  /** As they lie in the database. */
  readonly events: readonly JobEvent[];
  /** The same as this board can show them: what does not fit its file is marked. */
  readonly shown: readonly JobEvent[];
  readonly purpose: JobPurpose;
}

/** Loads a job, or says why it cannot be shown: there is none, or its board cannot be read. */
export async function loadRecord(db: Session, number: JobNumber): Promise<Result<JobRecord>> {
  const row = await findJob(db, number);
  if (!row) return fail(`Expected a job that exists; there is no job ${number}.`);
  const board = await readBoard(db, row.boardId, row.boardRevision);
  if (!board.ok) return board;
  const events = await jobEventsOf(db, number);
  const { training } = row;
  const purpose = { training, simulators: training || (await isDemoWorld(db)) };
  return ok({ row, board: board.value, events, shown: fitToBoard(board.value, events), purpose });
}

/** What a thread needs of a job. What the file of its board does not know, good boards of its revision say where they were read. */
function requestFor({ row, board, shown, purpose }: JobRecord, knowledge: BenchKnowledge): ViewRequest {
  const { number, openedAt } = row;
  const { references = {} } = knowledge;
  return { board: withGoodBoards(board, references), number, openedAt, events: shown, knowledge, purpose };
}

async function viewOf(record: JobRecord, knowledge: BenchKnowledge): Promise<JobView> {
  const request = requestFor(record, knowledge);
  const { references = {} } = knowledge;
  return { ...(await work('view', request)), board: request.board, references };
}

/** "Why not mine?" of a job as it is: a test or work weighed against what is proposed, in words. */
export async function answerQuestion(db: Session, record: JobRecord, asked: JobQuestion): Promise<string> {
  const request = requestFor(record, await knowledgeOf(db, record.board.id));
  return work('why', { ...request, asked });
}

const hashOf = (of: unknown): string => createHash('sha256').update(JSON.stringify(of)).digest('hex');

/** Views that stay in memory: those of the jobs that are worked on. Whoever asks while one is computed waits for the same. */
const MOST_VIEWS = 60;
const views = new Map<string, Promise<JobView>>();

/** Forgets every view that is kept: what was erased is not to stay in memory. */
export const forgetViews = (): void => views.clear();

/**
 * Everything a screen shows of a job. Computed once for each state of its record and of what the bench knows: a view is kept
 * under the names of all that it was computed from.
 */
export async function loadJob(db: Session, number: JobNumber): Promise<Result<JobView>> {
  const record = await loadRecord(db, number);
  if (!record.ok) return record;
  const { row, board, events, purpose } = record.value;
  const knowledge = await knowledgeOf(db, board.id);
  const basis = hashOf([row, events, purpose, knowledge.basis]);
  const view = views.get(basis) ?? viewOf(record.value, knowledge);
  views.delete(basis);
  views.set(basis, view);
  if (views.size > MOST_VIEWS) views.delete(views.keys().next().value!);
  // One that failed is computed again when it is asked for again.
  view.catch(() => views.delete(basis));
  return ok(await view);
}

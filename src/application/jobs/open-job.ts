import type { Board } from '../../core/board';
import type { JobNumber } from '../../core/identities';
import { record, TYPED, withOrigin, type Story } from '../../core/job';
import { ok, type Result } from '../../core/result';
import { standInBoard } from '../../core/sketch';
import { readBoard, retireBoard, saveBoard } from '../../db/boards';
import type { Database } from '../../db/client';
import { openJob as addJob } from '../../db/jobs';
import type { Session } from '../../db/session';
import { refused, refusedFor, saved, type ActionResult } from '../action-result';
import { once } from '../once';
import { carryOut, checkedCommand, enter } from './execute';
import { loadRecord } from './load-job';

/** The stand-in's file, put on the shelf for old boards when it is first needed: no new job is offered it. */
async function standIn(tx: Session, at: string): Promise<Result<Board>> {
  const board = standInBoard();
  await saveBoard(tx, board, at);
  await retireBoard(tx, board.id, at);
  return ok(board);
}

/**
 * Opens a job with its story: both, or neither.
 * @param boardId none where nobody has said yet which board it has.
 */
export function openJob(
  db: Database,
  boardId: string | undefined,
  story: Story,
  key: string,
  training = false,
): Promise<ActionResult> {
  return once(db, { key, scope: 'new job', request: { boardId, story, training } }, async (tx, meta) => {
    const board = boardId === undefined ? await standIn(tx, meta.at) : await readBoard(tx, boardId);
    if (!board.ok) return refusedFor(board.problems, 'notFound');
    if (story.symptom.trim() === '')
      return refused('Expected the symptom in the owner’s words; got nothing.', 'badInput');
    const told = checkedCommand(withOrigin(record(story), TYPED));
    if (!told.ok) return refusedFor(told.problems, 'badInput');
    const number = await addJob(tx, board.value.id, meta.at, undefined, training);
    const job = await loadRecord(tx, number);
    if (!job.ok) return refusedFor(job.problems);
    const kept = await carryOut(tx, job.value, told.value, 'Opened.', meta);
    return kept.saved ? saved('Opened.', { job: number, seq: kept.seq }) : kept;
  });
}

/** A closed job came back: it begins anew and knows its past. */
export async function reopenJob(db: Database, number: JobNumber, symptom: string, key: string): Promise<ActionResult> {
  if (symptom.trim() === '') return refused('Expected with what it came back; got nothing.', 'badInput');
  return enter(db, number, { kind: 'reopen', symptom: symptom.trim() }, key, { message: 'Open again.' });
}

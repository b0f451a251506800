import { randomUUID } from 'node:crypto';
import { decide, eventBodySchema, foldJob, record, type EventBody, type JobCommand, type JobEvent } from '../core/job';
import { fail, failAll, ok, type Result } from '../core/result';
import { referenceTable } from '../core/reference';
import { findBoard } from './boards';
import type { Database } from './client';
import { appendEvents, eventByKey, eventsOf, findJob, type EntryMeta } from './jobs';
import { listReferences } from './knowledge';

/** Which bench this machine is; set once per bench, shown with every entry. */
const BENCH = process.env.UNISOLDA_BENCH ?? 'Bench 1';
const ACTOR = process.env.UNISOLDA_ACTOR ?? 'Bench lead';

/** Who enters here, and now. */
export const benchMeta = (key: string): EntryMeta => ({
  key,
  at: new Date().toISOString(),
  bench: BENCH,
  actor: ACTOR,
});

/**
 * Carries out a command: the job is loaded, the command decided and what follows from it appended in one transaction.
 * Nothing is stored when a problem is returned. Answers with the last event.
 * @param key made once per entry by whoever enters; the same key again is not stored twice.
 */
export async function execute(
  db: Database,
  number: number,
  command: JobCommand,
  key: string = randomUUID(),
): Promise<Result<JobEvent>> {
  const checked = checkedCommand(command);
  if (!checked.ok) return checked;
  return db.transaction(async (tx): Promise<Result<JobEvent>> => {
    const known = await eventByKey(tx, key);
    if (known) return ok(known);
    const job = await findJob(tx, number);
    const board = job && (await findBoard(tx, job.boardId));
    if (!job || !board) return fail(`Expected a job that exists; there is no job ${number}.`);
    const events = await eventsOf(tx, number);
    // Only a closing is held against good boards: they are many rows.
    const isClosing = command.do === 'record' && command.body.kind === 'close';
    const references = isClosing ? referenceTable(await listReferences(tx, board.id)) : undefined;
    const decided = decide({ board, state: foldJob(events), references }, checked.value);
    if (!decided.ok) return decided;
    const appended = await appendEvents(tx, number, decided.value, events, benchMeta(key));
    return ok(appended[appended.length - 1]);
  });
}

/** Records something that happened. */
export const enter = (db: Database, number: number, body: EventBody, key?: string): Promise<Result<JobEvent>> =>
  execute(db, number, record(body), key);

/** A command from outside, held against the form of its event. */
function checkedCommand(command: JobCommand): Result<JobCommand> {
  if (command.do !== 'record') return ok(command);
  const parsed = eventBodySchema.safeParse(command.body);
  if (parsed.success) return ok({ ...command, body: parsed.data });
  return failAll(parsed.error.issues.slice(0, 3).map((i) => ({ at: i.path.join('.'), message: `${i.message}.` })));
}

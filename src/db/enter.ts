import { randomUUID } from 'node:crypto';
import { checkReading } from '../core/diagnose';
import { eventBodySchema, type EventBody, type JobEvent } from '../core/job';
import { fail, failAll, ok, type Result } from '../core/result';
import { findBoard } from './boards';
import type { Database } from './client';
import { appendEvent, findJob, type EntryMeta } from './jobs';

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
 * Checks an entry against its board and stores it. Nothing is stored when a problem is returned.
 * @param key made once per entry by whoever enters; the same key again is not stored twice.
 */
export async function enter(
  db: Database,
  number: number,
  entry: { body: EventBody; replaces?: number },
  key: string = randomUUID(),
): Promise<Result<JobEvent>> {
  const job = await findJob(db, number);
  if (!job) return fail(`Expected a job that exists; there is no job ${number}.`);
  const parsed = eventBodySchema.safeParse(entry.body);
  if (!parsed.success) {
    return failAll(parsed.error.issues.slice(0, 3).map((i) => ({ at: i.path.join('.'), message: `${i.message}.` })));
  }
  if (parsed.data.kind === 'reading') {
    const board = await findBoard(db, job.boardId);
    const checked = checkReading(board!, parsed.data);
    if (!checked.ok) return checked;
  }
  return ok(await appendEvent(db, number, { body: parsed.data, replaces: entry.replaces }, benchMeta(key)));
}

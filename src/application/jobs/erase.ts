import type { JobNumber } from '../../core/identities';
import { sql } from 'drizzle-orm';
import { record } from '../../core/job';
import { dayIn } from '../../core/units';
import type { Database } from '../../db/client';
import { eraseOwnersData } from '../../db/erase';
import { jobEventsOf } from '../../db/jobs';
import { keepSummary } from '../../db/keep-summary';
import { noJob, refused, saved, type ActionResult } from '../action-result';
import { now } from '../entrant';
import { once } from '../once';
import { loadPlace } from '../place';
import { carryOut } from './execute';
import { forgetViews, loadRecord } from './load-job';

/**
 * Erases an owner's words, pictures and images from a closed job; that it was done, when and by whom stays. The file is written anew
 * after it, so that the bytes are gone from it and its log; older copies hold them until they are thinned out.
 */
export async function eraseOwner(db: Database, number: JobNumber, key?: string): Promise<ActionResult> {
  const done = await erase(db, number, "at the owner's request", key);
  if (done.saved) await rewriteFile(db);
  return done;
}

/**
 * Erases the owners' data of several closed jobs; the file is written anew once.
 * @param why as the record says it.
 * @returns the jobs in which it was done.
 */
export async function eraseOwners(db: Database, numbers: readonly number[], why: string): Promise<readonly number[]> {
  const done: number[] = [];
  for (const number of numbers) if ((await erase(db, number, why)).saved) done.push(number);
  if (done.length > 0) await rewriteFile(db);
  return done;
}

/** What was erased is gone from memory, from the file and from its log. */
async function rewriteFile(db: Database): Promise<void> {
  forgetViews();
  await db.run(sql`VACUUM`);
  await db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
}

function erase(db: Database, number: JobNumber, why: string, key?: string): Promise<ActionResult> {
  return once(db, { key, scope: `job ${number}`, request: 'erase' }, async (tx, meta) => {
    const job = await loadRecord(tx, number);
    if (!job.ok) return noJob(number);
    const closed = job.value.shown.some(({ body }) => body.kind === 'close');
    if (!closed) return refused(`Expected a closed job; ${number} is open, and its work rests on what was told.`);
    const { entries, images } = await eraseOwnersData(tx, number);
    const text = `Owner's data erased ${why}: ${entries} entries, ${images} pictures and images.`;
    const again = await loadRecord(tx, number);
    if (!again.ok) return noJob(number);
    const kept = await carryOut(tx, again.value, record({ kind: 'note', text }), '', meta);
    if (!kept.saved) return kept;
    await keepSummary(tx, number, await jobEventsOf(tx, number));
    return saved(
      `${text} ${dayIn(await loadPlace(tx), now())}. Copies made before hold it until they are thinned out.`,
    );
  });
}

import { sql } from 'drizzle-orm';
import { record } from '../../core/job';
import type { Database } from '../../db/client';
import { eraseOwnersData } from '../../db/erase';
import { jobEventsOf } from '../../db/jobs';
import { keepSummary } from '../../db/keep-summary';
import { noJob, refused, saved, type ActionResult } from '../action-result';
import { now } from '../entrant';
import { once } from '../once';
import { carryOut } from './execute';
import { forgetViews, loadRecord } from './load-job';

/**
 * Erases an owner's words, pictures and images from a closed job; that it was done, when and by whom stays. The file is written anew
 * after it, so that the bytes are gone from it and its log; older copies hold them until they are thinned out.
 */
export async function eraseOwner(db: Database, number: number, key?: string): Promise<ActionResult> {
  const done = await once(db, { key, scope: `job ${number}`, request: 'erase' }, async (tx, meta) => {
    const job = await loadRecord(tx, number);
    if (!job.ok) return noJob(number);
    const closed = job.value.shown.some(({ body }) => body.kind === 'close');
    if (!closed) return refused(`Expected a closed job; ${number} is open, and its work rests on what was told.`);
    const { entries, images } = await eraseOwnersData(tx, number);
    const text = `Owner's data erased at the owner's request: ${entries} entries, ${images} pictures and images.`;
    const again = await loadRecord(tx, number);
    if (!again.ok) return noJob(number);
    const kept = await carryOut(tx, again.value, record({ kind: 'note', text }), '', meta);
    if (!kept.saved) return kept;
    await keepSummary(tx, number, await jobEventsOf(tx, number));
    return saved(`${text} ${now().slice(0, 10)}. Copies made before hold it until they are thinned out.`);
  });
  if (done.saved) {
    forgetViews();
    await db.run(sql`VACUUM`);
    await db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
  }
  return done;
}

import { z } from 'zod';
import type { Database } from '../../db/client';
import { jobsWithOwnersData } from '../../db/erase';
import { findRetention, saveRetention } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { refused, type ActionResult } from '../action-result';
import { eraseOwners } from '../jobs/erase';
import { journal } from '../journal';
import { keep } from '../once';

/** How long an owner's words and pictures stay after a job was closed. */
const retentionSchema = z.object({
  months: z.number().int().min(1, 'expected 1 to 240 months').max(240, 'expected 1 to 240 months').nullable(),
});
export type Retention = z.infer<typeof retentionSchema>;

/** Where nothing was said everything stays: nothing is erased that nobody asked for. */
const NEVER: Retention = { months: null };

export const loadRetention = async (db: Session): Promise<Retention> =>
  (await findRetention(db, (json) => retentionSchema.parse(json))) ?? NEVER;

/** Keeps how long an owner's data stay; null for as long as the file. */
export async function keepRetention(db: Database, setting: unknown): Promise<ActionResult> {
  const parsed = retentionSchema.safeParse(setting);
  if (!parsed.success) return refused(`Expected whole months; ${parsed.error.issues[0].message}.`, 'badInput');
  const { months } = parsed.data;
  return keep(db, 'retention', async (tx) => {
    await saveRetention(tx, parsed.data);
    return months === null
      ? 'Kept: nothing is erased by itself.'
      : `Kept: an owner’s data go ${months} months after a job was closed; it is looked at once a day.`;
  });
}

/** Jobs that were closed before this hold no more of their owners. */
function lineFor({ months }: Retention, now: Date): Date | undefined {
  if (months === null) return undefined;
  const line = new Date(now);
  line.setUTCMonth(line.getUTCMonth() - months);
  return line;
}

/** How many jobs are due now. */
export async function countDue(db: Session, now: Date): Promise<number> {
  const line = lineFor(await loadRetention(db), now);
  return line ? (await jobsWithOwnersData(db, line.toISOString())).length : 0;
}

/** Erases what is due. @returns the jobs from which an owner's data went. */
export async function eraseDue(db: Database, now: Date): Promise<readonly number[]> {
  const retention = await loadRetention(db);
  const line = lineFor(retention, now);
  if (!line) return [];
  const due = await jobsWithOwnersData(db, line.toISOString());
  return eraseOwners(db, due, `by the shop's own time of ${retention.months} months`);
}

/** Looked at so often, ms: once a day, and at each start. */
const LOOKS_EVERY_MS = 24 * 3_600_000;

/** Erases what is due now and every day from now on; until the process ends. */
export function keepErasing(db: Database): void {
  const look = (): void =>
    void eraseDue(db, new Date()).catch((error: unknown) => journal().problem('erasing what is due', error));
  look();
  setInterval(look, LOOKS_EVERY_MS).unref();
}

import { summariseLog, type JobEvent } from '../core/job';
import { jobSummaries } from './schema';
import type { Session } from './session';

/** Keeps what lists show of a job, beside the event that changed it. */
export async function keepSummary(tx: Session, number: number, events: readonly JobEvent[]): Promise<void> {
  const { soak, lastAt = '', outcome = null, ...rest } = summariseLog(events);
  const row = { ...rest, lastAt, outcome, soak: soak ? JSON.stringify(soak) : null };
  await tx
    .insert(jobSummaries)
    .values({ jobNumber: number, ...row })
    .onConflictDoUpdate({ target: jobSummaries.jobNumber, set: row });
}

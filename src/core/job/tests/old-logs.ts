import type { DEMO_BOARDS } from '../../../../demo/files';
import { loggedEventSchema, type JobEvent } from '../log';
import demoJobsRows from './old-logs/2026-11-demo-jobs.json';
import everyTypeRows from './old-logs/2026-11-every-type.json';

interface OldLog {
  readonly board: (typeof DEMO_BOARDS)[number];
  readonly rows: readonly object[];
}

/** A log with every type of entry, as it lay in the database. */
export const everyType = everyTypeRows as OldLog;
/** The demo's jobs as they lay there, by number. */
export const demo = demoJobsRows as Readonly<Record<string, OldLog>>;

export const eventsOf = ({ rows }: OldLog): JobEvent[] => rows.map((row) => loggedEventSchema.parse(row));

/** When rows that are made for a test were set aside. */
export const SET_ASIDE = '2026-11-02T08:00:00.000Z';

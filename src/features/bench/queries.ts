import 'server-only';
import * as lists from '@/application/jobs/job-lists';
import { database } from '@/db/client';

export type { BenchOverview, BenchRow } from '@/application/jobs/job-lists';

/** The open jobs with their next step, what is urgent first, then the shortest step. */
export const loadBench = async () => lists.loadBench(await database());

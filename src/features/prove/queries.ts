import 'server-only';
import * as lists from '@/application/jobs/job-lists';
import { database } from '@/db/client';

/** The soaks that run now, in all jobs. */
export const loadSoakClocks = async (): Promise<lists.SoakClock[]> => lists.loadSoakClocks(await database());

import 'server-only';
import * as lists from '@/application/jobs/job-lists';
import { database } from '@/db/client';

export type { JobLine, JobPage } from '@/application/jobs/job-lists';

export const loadJobPage = async (find: string, page: number) => lists.loadJobPage(await database(), find, page);

export const loadBoardChoices = async () => lists.loadBoardChoices(await database());

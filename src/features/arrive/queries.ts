import 'server-only';
import * as boards from '@/application/library/boards';
import { database } from '@/db/client';

export type { RevisionChoice } from '@/application/library/boards';

/** A newer file of a job's board; none where the job is on the newest. */
export const loadRevisionChoice = async (number: number) => boards.loadRevisionChoice(await database(), number);

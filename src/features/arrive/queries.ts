import 'server-only';
import * as boards from '@/application/library/boards';
import { loadBoardChoices } from '@/application/jobs/job-lists';
import { isStandIn } from '@/core/board';
import type { JobView } from '@/core/job';
import { database } from '@/db/client';
import type { BoardChoice } from './new-job';

export type { RevisionChoice } from '@/application/library/boards';

/** A newer file of a job's board; none where the job is on the newest. */
export const loadRevisionChoice = async (number: number) => boards.loadRevisionChoice(await database(), number);

/** The boards that a job can be put on whose board nobody has named; none where it has one. */
export const loadBoardsToChoose = async ({ board }: JobView): Promise<readonly BoardChoice[] | undefined> =>
  isStandIn(board) ? (await loadBoardChoices(await database())).boards : undefined;

'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import { enter } from '@/application/jobs/execute';
import * as jobs from '@/application/jobs/open-job';
import { chooseBoard, moveJobToFile } from '@/application/library/boards';
import type { DeviceMarks, Story } from '@/core/job';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

/** Keeps the story of a job; a later story corrects the earlier one, which stays in the record. */
export const keepStory = taking(
  [arg.number, arg.object<Story>(), arg.key],
  async (number: number, story: Story, key: string): Promise<ActionResult> => {
    const answer = await enter(await database(), number, story, key);
    if (answer.saved) revalidatePath('/jobs/[number]', 'layout');
    return answer;
  },
);

/** Keeps which device it is: serial number, ticket, and a code for its owner. */
export const keepDevice = taking(
  [arg.number, arg.object<DeviceMarks>(), arg.key],
  async (number: number, device: DeviceMarks, key: string): Promise<ActionResult> => {
    const answer = await enter(await database(), number, { ...device, kind: 'device' }, key);
    if (answer.saved) revalidatePath('/jobs/[number]', 'layout');
    return answer;
  },
);

/** Says which board a job has. */
export const sayBoard = taking(
  [arg.number, arg.text, arg.flag],
  async (number: number, boardId: string, acceptMisfits: boolean): Promise<ActionResult> => {
    const answer = await chooseBoard(await database(), number, boardId, acceptMisfits);
    if (answer.saved) revalidatePath('/jobs/[number]', 'layout');
    return answer;
  },
);

/** Opens a job with its story: both, or neither; without a board's name while nobody knows it. */
export const openNewJob = taking(
  [arg.text.optional(), arg.object<Story>(), arg.key, arg.flag.optional()],
  async (boardId: string | undefined, story: Story, key: string, training = false): Promise<ActionResult> =>
    jobs.openJob(await database(), boardId, story, key, training),
);

/** Moves a job to another revision of its board's file. */
export const moveToRevision = taking(
  [arg.number, arg.number, arg.flag],
  async (number: number, revision: number, acceptMisfits: boolean): Promise<ActionResult> => {
    const answer = await moveJobToFile(await database(), number, { revision }, { acceptMisfits });
    if (answer.saved) revalidatePath('/jobs/[number]', 'layout');
    return answer;
  },
);

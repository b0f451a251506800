'use server';

import { revalidatePath } from 'next/cache';
import { refused, type ActionResult } from '@/application/action-result';
import { beginDrillOfJob } from '@/application/drills/drills';
import * as closeout from '@/application/jobs/closeout';
import * as jobs from '@/application/jobs/open-job';
import { keepPicture as keepReportPicture } from '@/application/jobs/pictures';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/', 'layout');
  return answer;
};

/** Writes back what a repaired job taught. Twice changes nothing. */
export const keepLesson = taking([arg.number], async (number: number): Promise<ActionResult> =>
  shown(await closeout.keepLesson(await database(), number)),
);

/** Takes back what a job taught, this time or a time before it came back. */
export const dropLesson = taking(
  [arg.number, arg.number.optional()],
  async (number: number, timesBack?: number): Promise<ActionResult> =>
    shown(await closeout.dropLesson(await database(), number, timesBack)),
);

/** Closes a job. As repaired only when all gates hold, or with a reason. */
export const closeJob = taking(
  [arg.number, arg.object<closeout.Closing>(), arg.key],
  async (number: number, closing: closeout.Closing, key: string): Promise<ActionResult> =>
    shown(await closeout.closeJob(await database(), number, closing, key)),
);

/** A closed job came back: it begins anew and knows its past. */
export const reopenJob = taking(
  [arg.number, arg.text, arg.key],
  async (number: number, symptom: string, key: string): Promise<ActionResult> =>
    shown(await jobs.reopenJob(await database(), number, symptom, key)),
);

/** A drill with the faults that a repaired job had. */
export const makeDrill = taking([arg.number, arg.key], async (number: number, key: string): Promise<ActionResult> =>
  shown(await beginDrillOfJob(await database(), number, key)),
);

/** Keeps a picture for the report: a JPEG that was masked in the browser and carries nothing but its picture. */
export const keepPicture = taking(
  [arg.number, arg.form, arg.key],
  async (number: number, form: FormData, key: string): Promise<ActionResult> => {
    const file = form.get('picture');
    if (!(file instanceof File)) return refused('Expected a picture; got none. Nothing was kept.', 'badInput');
    const shows = { words: String(form.get('words') ?? '').trim(), masks: Number(form.get('masks')) };
    const bytes = new Uint8Array(await file.arrayBuffer());
    return shown(await keepReportPicture(await database(), number, bytes, shows, key));
  },
);

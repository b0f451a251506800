import 'server-only';
import * as closeout from '@/application/jobs/closeout';
import type { JobReport } from '@/core/job';
import { database } from '@/db/client';

/** The report of a job; undefined when there is no such job. */
export const loadReport = async (number: number, withPrivate = false): Promise<JobReport | undefined> =>
  closeout.loadReport(await database(), number, withPrivate);

/** Whether what a job taught has been written back, this time or a time before it came back. */
export const isLessonKept = async (number: number, timesBack = 0): Promise<boolean> =>
  closeout.isLessonKept(await database(), number, timesBack);

/** The bytes of a report's pictures, by their SHA-256. */
export const loadReportPictures = async (report: JobReport): Promise<ReadonlyMap<string, Buffer>> =>
  closeout.loadReportPictures(await database(), report);

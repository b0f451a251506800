'use server';

import { revalidatePath } from 'next/cache';
import { practiceSchema, type Practice } from '@/core/diagnose';
import { foldJob, kindsAtFault, learnedRecords, reportWordsSchema, type KindRecord } from '@/core/job';
import { database } from '@/db/client';
import { listBoards } from '@/db/boards';
import { workOfClosedJobs } from '@/db/jobs';
import { findPractice, savePractice, saveReportWords } from '@/db/knowledge';

export interface PracticeAnswer {
  readonly kept: boolean;
  readonly words: string;
}

/** What each figure must be, in the user's words; the bounds are those of the schema. */
const WANTED: Readonly<Record<string, string>> = {
  errorRates: 'error rates from 0.1 to 50 %',
  factors: 'factors from 0.1 to 20',
  records: 'times as often, from 0.1 to 20',
  prices: 'prices from 0 to 10,000, an hour from 1 to 1,000',
  doubleShare: 'a share of jobs with two faults from 0 to 50 %',
  deadOnArrival: 'a share of bad new parts from 0 to 50 %',
};

/** Keeps what the bench settles for itself, beside what it settled before; what makes no sense changes nothing. */
export async function keepPractice(change: unknown): Promise<PracticeAnswer> {
  const parsed = practiceSchema.partial().safeParse(change);
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    const [first, ...rest] = path.map(String);
    const where = rest.length > 0 ? `${rest.join(', ')}: ` : '';
    return { kept: false, words: `Expected ${WANTED[first] ?? 'figures of a bench'}; ${where}${message}.` };
  }
  const db = await database();
  const given = Object.fromEntries(
    Object.keys(change as object).map((key) => [key, parsed.data[key as keyof Practice]]),
  );
  await savePractice(db, { ...(await findPractice(db)), ...given });
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Kept: every open job counts with it from now on.' };
}

/** Keeps how the shop's reports read; what makes no sense changes nothing. */
export async function keepReportWords(words: unknown): Promise<PracticeAnswer> {
  const parsed = reportWordsSchema.safeParse(words);
  if (!parsed.success) {
    const [{ path, message }] = parsed.error.issues;
    return { kept: false, words: `Expected a heading and lines of a report; ${path.join(', ')}: ${message}.` };
  }
  await saveReportWords(await database(), parsed.data);
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Kept: every report reads like this from now on.' };
}

/** What the closed jobs of this bench say of each kind of part; nothing is kept by asking. */
export async function learnFromJobs(): Promise<{ readonly jobs: number; readonly records: readonly KindRecord[] }> {
  const db = await database();
  const boards = new Map((await listBoards(db)).map((b) => [b.id, b]));
  const repaired = (await workOfClosedJobs(db)).flatMap(({ boardId, events }) => {
    const board = boards.get(boardId);
    const state = foldJob(events);
    return board && state.closed?.outcome === 'repaired' ? [{ board, kinds: kindsAtFault(board, state) }] : [];
  });
  return { jobs: repaired.length, records: learnedRecords(repaired) };
}

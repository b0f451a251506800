import 'server-only';
import { calendarOf } from '@/application/day/calendar';
import * as day from '@/application/day/day';
import { loadSoakClocks } from '@/application/jobs/job-lists';
import type { JobView } from '@/core/job';
import { database } from '@/db/client';

export type { BenchDay, DayLine } from '@/application/day/day';

/** The day at the benches as it stands now. */
export const loadDay = async () => day.loadDay(await database(), new Date());

/** What a job is likely to take and cost. */
export const loadQuote = async (job: JobView): Promise<day.ShopQuote> => day.loadQuote(await database(), job);

/** Promises and ends of soaks, as iCalendar. */
export async function loadCalendar(): Promise<string> {
  const db = await database();
  const { lines } = await day.loadDay(db, new Date());
  return calendarOf(lines, await loadSoakClocks(db));
}

import { z } from 'zod';

/** How the shop's report reads. `{job}` and `{device}` stand for the job's number and the device. */
export const reportWordsSchema = z.object({
  shop: z.string().trim().max(120).default('Unisolda'),
  heading: z.string().trim().min(1).max(120).default('Repair report, job {job}'),
  closing: z.string().trim().max(600).default(''),
  /** Put before a price, such as a currency. */
  money: z.string().trim().max(12).default(''),
});

export type ReportWords = z.infer<typeof reportWordsSchema>;

export const DEFAULT_REPORT_WORDS: ReportWords = reportWordsSchema.parse({});

/** A line of the shop's with the job's own words in it. */
export const filledIn = (line: string, facts: Readonly<Record<'job' | 'device', string>>): string =>
  line.replace(/\{(job|device)\}/g, (_, name: 'job' | 'device') => facts[name]);

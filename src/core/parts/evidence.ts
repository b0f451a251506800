import { z } from 'zod';
import { refText } from '../board';
import { betaQuantile } from '../math';

const id = z.string().regex(/^[a-z0-9][a-z0-9-]*$/, 'expected a short name such as heron-q40-r3');

export const SOURCES = ['own', 'mate', 'hearsay'] as const;
export type ReportSource = (typeof SOURCES)[number];
export const SOURCE_WORDS: Readonly<Record<ReportSource, string>> = {
  own: 'own bench',
  mate: 'shop mate',
  hearsay: 'hearsay',
};

/** What somebody saw when a part type went onto a place. */
export const reportSchema = z.object({
  typeId: id,
  boardId: z.string(),
  ref: refText,
  date: z.iso.date(),
  source: z.enum(SOURCES),
  worked: z.boolean(),
  functions: z
    .record(z.string(), z.boolean())
    .default({})
    .describe('functions that were tried, and whether they worked'),
  note: z.string().trim().max(400).default(''),
});
export type Report = z.infer<typeof reportSchema>;

export type SourceWeights = Readonly<Record<ReportSource, number>>;
/** How much a report counts. Engineering estimates that a bench may replace by its own. */
export const SOURCE_WEIGHT: SourceWeights = { own: 1, mate: 0.7, hearsay: 0.3 };

/** Chance of success as a Beta posterior over a flat prior, Beta(1, 1). */
export interface Success {
  readonly mean: number;
  /** Bounds that hold the chance with 95 %, equal tails. */
  readonly low: number;
  readonly high: number;
  readonly reports: number;
  readonly worked: number;
}

export const SUCCESS_CONFIDENCE = 0.95;

/** Counts weighted reports: one that worked adds its weight to the first shape, one that failed to the second. */
export function successOf(
  outcomes: readonly { worked: boolean; source: ReportSource }[],
  weights: SourceWeights,
): Success {
  let [a, b] = [1, 1];
  for (const { worked, source } of outcomes) {
    if (worked) a += weights[source];
    else b += weights[source];
  }
  const tail = (1 - SUCCESS_CONFIDENCE) / 2;
  return {
    mean: a / (a + b),
    low: betaQuantile(tail, a, b),
    high: betaQuantile(1 - tail, a, b),
    reports: outcomes.length,
    worked: outcomes.filter((o) => o.worked).length,
  };
}

/** What reports say of one function. */
export interface FunctionProof {
  readonly fn: string;
  readonly worked: number;
  readonly failed: number;
}

/** Each wanted function with the reports that tried it; none: never tried. */
export const functionProofs = (wanted: readonly string[], reports: readonly Report[]): FunctionProof[] =>
  wanted.map((fn) => ({
    fn,
    worked: reports.filter((r) => r.functions[fn] === true).length,
    failed: reports.filter((r) => r.functions[fn] === false).length,
  }));

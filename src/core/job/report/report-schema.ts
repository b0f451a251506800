import { z } from 'zod';

const nameAndState = z.object({ what: z.string(), state: z.string() });
const point = z.array(z.number());

/** A meter trace of one plug way, before the work or after it. */
const traceSchema = z.object({
  way: z.string(),
  time: z.enum(['before', 'now']),
  timesS: point.describe('s'),
  amps: point.describe('A, as many as times'),
});

/** The one-page report as plain data: the print page and the PDF show the same. */
export const jobReportSchema = z.object({
  training: z.boolean().describe('a job to learn on: no repair of a real device'),
  shop: z.string(),
  title: z.string(),
  device: z.string(),
  opened: z.string().describe('day'),
  closed: z.string().optional().describe('day'),
  outcome: z.string(),
  reason: z.string().optional().describe('why it closed with gates not met, where it did'),
  cause: z.string(),
  symptom: z.string(),
  past: z.array(z.string()).describe('each time it was closed before it came back, the latest first'),
  findings: z.array(z.object({ stage: z.string(), words: z.string() })),
  work: z.array(z.string()),
  parts: z
    .array(z.object({ what: z.string(), from: z.string().describe('part type and where it came from') }))
    .describe('new parts on the board'),
  bill: z
    .array(z.object({ what: z.string(), figure: z.string() }))
    .describe('bench minutes and price, where they were stated'),
  seal: z.string().optional().describe('seal of the newest entry: the record can be checked against it'),
  origins: z.string().optional().describe('where the readings come from, counted'),
  rails: z.array(
    z.object({ rail: z.string(), wanted: z.string(), before: z.string(), now: z.string(), state: z.string() }),
  ),
  plugs: z.array(z.object({ way: z.string(), before: z.string(), now: z.string() })),
  traces: z.array(traceSchema),
  functions: z.array(nameAndState),
  gates: z.array(z.object({ words: z.string(), state: z.string() })),
  pictures: z
    .array(z.object({ sha256: z.string(), words: z.string() }))
    .describe('as they were masked: nothing else of them is kept'),
  notes: z.array(z.string()).optional().describe('of the bench, which may be private: only where they were asked for'),
  closing: z.string(),
});

export type JobReport = z.infer<typeof jobReportSchema>;
export type ReportTrace = z.infer<typeof traceSchema>;

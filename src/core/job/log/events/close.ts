import { z } from 'zod';
import { defineEvent } from './definition';

export const OUTCOMES = ['repaired', 'stopped', 'returned'] as const;
export type Outcome = (typeof OUTCOMES)[number];

const schema = z.object({
  kind: z.literal('close'),
  outcome: z.enum(OUTCOMES),
  cause: z.string().trim().max(400).describe('what the owner is told about the cause'),
  reason: z.string().trim().max(400).optional().describe('why it closes with gates that do not hold'),
  minutes: z.number().min(0).max(10_000).optional().describe('bench work'),
  price: z.number().min(0).max(1_000_000).optional().describe('what the owner pays'),
});
export type CloseBody = z.infer<typeof schema>;

export const closeEvent = defineEvent<CloseBody>({
  type: 'close',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { outcome }) => `closed as ${outcome}`,
});

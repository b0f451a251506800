import { z } from 'zod';
import { formatSeconds, formatTempC } from '../units';
import type { HeatPlan } from './plan';
import { HEAT_LIMITS, type HeatVerdict } from './verdict-types';
import { ACT_FINDINGS } from './verdict-words';

/** The figures of a simulated plan that a person saw and accepted: what is kept of them, without a sentence. */
export const shownHeatSchema = z.object({
  actAtS: z.number().nullable().describe('when the hand acts; null where it never gets hot enough'),
  tightest: z
    .object({
      ref: z.string().max(24),
      limited: z.enum(['joints', 'body']),
      peakC: z.number(),
      limitC: z.number(),
    })
    .nullable()
    .describe('the neighbour nearest to its limit'),
  breaks: z.array(z.enum(HEAT_LIMITS)).max(HEAT_LIMITS.length),
});
export type ShownHeat = z.infer<typeof shownHeatSchema>;

export function shownOf({ actAtS, neighbours: [worst], breaks }: HeatVerdict): ShownHeat {
  const { ref, limited, peakC, limitC } = worst ?? {};
  return { actAtS, tightest: worst ? { ref, limited, peakC, limitC } : null, breaks: [...breaks] };
}

/** A few words for the path. */
export function heatFinding({ partRef, purpose }: HeatPlan, { actAtS, tightest, breaks }: ShownHeat): string {
  if (actAtS === null) return `${partRef} not hot enough`;
  if (breaks.includes('inTime')) return `${partRef} ready too late`;
  const act = `${ACT_FINDINGS[purpose]} ${formatSeconds(actAtS)}`;
  if (!tightest) return act;
  const { ref, limited, peakC, limitC } = tightest;
  return peakC > limitC
    ? `${act}, ${ref} reaches ${formatTempC(peakC)} against ${Math.round(limitC)}`
    : `${act}, ${ref} ${limited} ${formatTempC(peakC)} of ${Math.round(limitC)}`;
}

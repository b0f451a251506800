import { z } from 'zod';
import { heatPlanSchema } from '../../../heat';
import { wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('heatPlan'),
  plan: heatPlanSchema,
  stationId: z.string().max(80),
  finding: wordsSchema,
  liftAtS: z.number().nullable(),
  holds: z.boolean(),
  reason: wordsSchema.optional().describe('why a plan that breaks a limit is kept all the same'),
});
export type HeatPlanBody = z.infer<typeof schema>;

export const heatPlanEvent = defineEvent<HeatPlanBody>({
  type: 'heatPlan',
  version: 1,
  schema,
  upcasters: [],
  label: (_board, { plan, reason }) =>
    `heat plan for ${plan.partRef}${reason ? `, kept although it breaks a limit: ${reason}` : ''}`,
});

import { z } from 'zod';
import { heatPlanSchema, shownHeatSchema } from '../../../heat';
import { wordsSchema } from './fields-schema';
import { defineEvent } from './definition';

const schema = z.object({
  kind: z.literal('heatPlan'),
  plan: heatPlanSchema,
  stationId: z.string().max(80),
  shown: shownHeatSchema.describe('the figures on the screen when the plan was kept'),
  reason: wordsSchema.optional().describe('why a plan that breaks a limit is kept all the same'),
});
export type HeatPlanBody = z.infer<typeof schema>;

export const heatPlanEvent = defineEvent<HeatPlanBody>({
  type: 'heatPlan',
  version: 2,
  schema,
  upcasters: [
    // A sentence and a verdict were kept; of the figures only the moment to act.
    ({ finding: _, liftAtS, holds, ...rest }) => ({
      ...rest,
      shown: { actAtS: liftAtS, tightest: null, breaks: holds === true ? [] : ['notSaid'] },
    }),
  ],
  label: (_board, { plan, reason }) =>
    `heat plan for ${plan.partRef}${reason ? `, kept although it breaks a limit: ${reason}` : ''}`,
});

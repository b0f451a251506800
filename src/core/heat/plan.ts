import { z } from 'zod';
import { alloySchema } from '../joints';

/** One step of a heat plan: everything constant while it lasts. */
export const heatStepSchema = z.object({
  name: z.string().min(1).max(40),
  durationS: z.number().int('expected whole seconds').min(1).max(600),
  airSetC: z.number().min(0).max(500).nullable().describe('dial of the hot air; null when the air is off'),
  flowLpm: z.number().min(0).max(120),
  heightMm: z.number().min(2).max(80),
});

export const heatPlanSchema = z.object({
  partRef: z.string(),
  alloy: alloySchema.default('SAC305'),
  nozzleMm: z.number().min(2).max(20),
  ambientC: z.number().min(-10).max(45).default(22),
  plateSetC: z.number().min(30).max(350).nullable().default(null),
  covers: z.array(z.string()).default([]).describe('parts under a metal cover or heat tape'),
  steps: z.array(heatStepSchema).min(1).max(20),
});

export type HeatStep = z.infer<typeof heatStepSchema>;
export type HeatPlan = z.infer<typeof heatPlanSchema>;

/** A starting point for a small part; the simulation, not this table, decides (common practice for the shape only). */
export function startingPlan(partRef: string, alloy: HeatPlan['alloy'], nozzleMm: number): HeatPlan {
  return {
    partRef,
    alloy,
    nozzleMm,
    ambientC: 22,
    plateSetC: null,
    covers: [],
    steps: [
      { name: 'warm the area', durationS: 25, airSetC: 300, flowLpm: 30, heightMm: 20 },
      { name: 'close in', durationS: 20, airSetC: 350, flowLpm: 30, heightMm: 12 },
      { name: 'melt', durationS: 25, airSetC: 390, flowLpm: 30, heightMm: 12 },
      { name: 'nudge and lift', durationS: 12, airSetC: 390, flowLpm: 30, heightMm: 12 },
      { name: 'air off', durationS: 40, airSetC: null, flowLpm: 0, heightMm: 20 },
    ],
  };
}

export const planSeconds = (plan: HeatPlan): number => plan.steps.reduce((s, step) => s + step.durationS, 0);

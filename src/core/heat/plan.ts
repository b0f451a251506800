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
  plateReady: z.boolean().default(true).describe('the plate is at its temperature before the board is set on it'),
  covers: z.array(z.string()).default([]).describe('parts under a metal cover or heat tape'),
  limitsC: z
    .record(z.string(), z.number().min(40).max(400))
    .default({})
    .describe('limits of neighbours for this plan, by part: tighter than usual, or accepted'),
  steps: z.array(heatStepSchema).min(1).max(20),
});

export type HeatStep = z.infer<typeof heatStepSchema>;
export type HeatPlan = z.infer<typeof heatPlanSchema>;

/** A nozzle about as wide as the part reaches its joints; a narrower one spares the neighbours. Engineering estimate. */
const NOZZLE_SHARE_OF_BODY = 0.6;
/** Flow that goes with a nozzle, l/min per mm of bore. Engineering estimate. */
const FLOW_PER_MM = 5;

/** The smallest nozzle of a station that is wide enough for a body. */
export function nozzleFor(nozzlesMm: readonly number[], bodyMm: readonly [number, number]): number {
  const sorted = [...nozzlesMm].sort((a, b) => a - b);
  return sorted.find((n) => n >= NOZZLE_SHARE_OF_BODY * Math.max(...bodyMm)) ?? sorted[sorted.length - 1];
}

/** A starting point; the simulation, not this table, decides (common practice for the shape only). */
export function startingPlan(partRef: string, alloy: HeatPlan['alloy'], nozzleMm: number): HeatPlan {
  const flowLpm = FLOW_PER_MM * nozzleMm;
  return {
    partRef,
    alloy,
    nozzleMm,
    ambientC: 22,
    plateSetC: null,
    plateReady: true,
    covers: [],
    limitsC: {},
    steps: [
      { name: 'warm the area', durationS: 20, airSetC: 250, flowLpm, heightMm: 20 },
      { name: 'close in', durationS: 20, airSetC: 340, flowLpm, heightMm: 12 },
      { name: 'melt', durationS: 22, airSetC: 380, flowLpm, heightMm: 8 },
      { name: 'nudge and lift', durationS: 8, airSetC: 380, flowLpm, heightMm: 8 },
      { name: 'air off', durationS: 40, airSetC: null, flowLpm: 0, heightMm: 20 },
    ],
  };
}

export const planSeconds = (plan: HeatPlan): number => plan.steps.reduce((s, step) => s + step.durationS, 0);

import type { PartRef } from '../identities';
import { z } from 'zod';
import { alloySchema } from '../joints';
import { UNDERFILLS, purposeSchema, stackSchema, type Purpose, type Stack } from './purpose';

/** One step of a heat plan: everything constant while it lasts. */
export const heatStepSchema = z.object({
  name: z.string().min(1).max(40),
  durationS: z.number().int('expected whole seconds').min(1).max(600),
  airSetC: z.number().min(0).max(500).nullable().describe('dial of the hot air; null when the air is off'),
  flowLpm: z.number().min(0).max(120),
  heightMm: z.number().min(2).max(80),
});

/** Further from a part's middle no air is aimed that is to work on it. Engineering estimate. */
export const MOST_OFFSET_MM = 10;

export const heatPlanSchema = z.object({
  partRef: z.string(),
  purpose: purposeSchema.default('lift').describe('what the plan is for'),
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
  softensC: z
    .number()
    .min(60)
    .max(210)
    .default(UNDERFILLS.unknown.softensC)
    .describe('where the underfill of the worked part softens, for clearing it'),
  sweepMm: z
    .number()
    .min(0)
    .max(40)
    .nullable()
    .default(null)
    .describe('radius of the circle the nozzle is moved in; null as the station is usually moved'),
  offsetMm: z
    .tuple([z.number().min(-MOST_OFFSET_MM).max(MOST_OFFSET_MM), z.number().min(-MOST_OFFSET_MM).max(MOST_OFFSET_MM)])
    .default([0, 0])
    .describe('where the nozzle’s axis meets the board, from the middle of the part along the board’s x and y'),
  stack: stackSchema.nullable().default(null).describe('the upper board, where two are parted'),
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

/** Dials, heights, seconds and names of the first plan for each purpose. Common practice for the shape only. */
interface Shape {
  readonly plateC: number | null;
  readonly sweepMm: number | null;
  /** Flow against the usual one of the nozzle. */
  readonly flow: number;
  readonly steps: readonly (readonly [name: string, durationS: number, dialC: number, heightMm: number])[];
  /** The last step, without air. */
  readonly off: string;
}

const SHAPES: Readonly<Record<Purpose, Shape>> = {
  lift: {
    ...{ plateC: null, sweepMm: null, flow: 1, off: 'air off' },
    steps: [
      ['warm the area', 20, 250, 20],
      ['close in', 20, 340, 12],
      ['melt', 22, 380, 8],
      ['nudge and lift', 8, 380, 8],
    ],
  },
  place: {
    ...{ plateC: null, sweepMm: null, flow: 1, off: 'air away, untouched' },
    steps: [
      ['warm the area', 20, 250, 20],
      ['close in', 20, 340, 12],
      ['wet and settle', 22, 380, 8],
      ['nudge, hold', 8, 380, 8],
    ],
  },
  soften: {
    ...{ plateC: null, sweepMm: null, flow: 1, off: 'air off' },
    steps: [
      ['warm the area', 20, 180, 20],
      ['close in', 20, 230, 12],
      ['soften', 22, 230, 12],
      ['clear the edges', 60, 230, 12],
    ],
  },
  site: {
    ...{ plateC: null, sweepMm: null, flow: 1, off: 'air off' },
    steps: [
      ['warm the area', 20, 160, 20],
      ['warm on', 20, 200, 15],
      ['even out', 22, 200, 15],
      ['level the pads', 90, 200, 15],
    ],
  },
  partBoards: {
    // A plate of 215 to 235 °C with a little air from above, moving all the time: common practice, no source.
    ...{ plateC: 235, sweepMm: 8, flow: 1, off: 'air off' },
    steps: [
      ['warm with the plate', 60, 200, 25],
      ['close in', 60, 300, 20],
      ['melt the frame', 36, 340, 15],
      ['lift the upper board', 15, 340, 15],
    ],
  },
  reball: {
    // Little air: loose balls and paste are blown away. Common practice, no source.
    ...{ plateC: null, sweepMm: null, flow: 0.6, off: 'air off, untouched' },
    steps: [
      ['warm the chip', 20, 200, 20],
      ['close in', 20, 280, 16],
      ['melt the balls', 22, 330, 12],
      ['let them settle', 10, 330, 12],
    ],
  },
};

/** A starting point; the simulation, not this table, decides. */
export function startingPlan(
  partRef: PartRef,
  alloy: HeatPlan['alloy'],
  nozzleMm: number,
  purpose: Purpose = 'lift',
  stack: Stack | null = null,
): HeatPlan {
  const { plateC, sweepMm, flow, steps, off } = SHAPES[purpose];
  const flowLpm = Math.round(FLOW_PER_MM * nozzleMm * flow);
  return {
    partRef,
    purpose,
    alloy,
    nozzleMm,
    ambientC: 22,
    plateSetC: plateC,
    plateReady: true,
    covers: [],
    limitsC: {},
    softensC: UNDERFILLS.unknown.softensC,
    sweepMm,
    offsetMm: [0, 0],
    stack,
    steps: [
      ...steps.map(([name, durationS, airSetC, heightMm]) => ({ name, durationS, airSetC, flowLpm, heightMm })),
      { name: off, durationS: 40, airSetC: null, flowLpm: 0, heightMm: 20 },
    ],
  };
}

/** The plan that took a part off, for putting it back: the same heat, its steps named for what the hand does then. */
export function asPlacing(plan: HeatPlan): HeatPlan {
  const named = new Map(SHAPES.lift.steps.map(([name], i) => [name, SHAPES.place.steps[i][0]]));
  named.set(SHAPES.lift.off, SHAPES.place.off);
  return { ...plan, purpose: 'place', steps: plan.steps.map((s) => ({ ...s, name: named.get(s.name) ?? s.name })) };
}

export const planSeconds = (plan: HeatPlan): number => plan.steps.reduce((s, step) => s + step.durationS, 0);

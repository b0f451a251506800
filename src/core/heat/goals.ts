import { z } from 'zod';
import type { AlloyName } from '../joints';

/** What a heat plan has to reach and to keep: a set per kind of solder, which the bench may change. */
export const heatGoalsSchema = z.object({
  coldestOverLiquidusK: z.number().min(0).max(40).describe('aim of the coldest joint’s peak above liquidus'),
  neighbourUnderSolidusK: z.number().min(0).max(60).describe('neighbours’ joints stay this far below their solidus'),
  plasticLimitC: z.number().min(80).max(300).describe('plastic bodies, where the board file says nothing'),
  ceilings: z.enum(['leadFree', 'tinLead']).describe('table of package ceilings'),
  riseLimitCPerS: z
    .number()
    .min(0.5)
    .max(20)
    .nullable()
    .describe('fastest rise over five seconds that still holds; null when it is told, not judged'),
  dialLimitC: z
    .number()
    .min(200)
    .max(500)
    .nullable()
    .default(null)
    .describe('hottest dial a plan may ask for; null up to what the station has'),
});

export type HeatGoals = z.infer<typeof heatGoalsSchema>;

/**
 * The aim for a joint is usually 15…30 K above liquidus (common practice); the coldest joint of a part lies below its mean,
 * and every kelvin here is one more at the neighbours: engineering estimate. 10 K below solidus: common practice. Plastic
 * 200 °C: engineering estimate.
 */
const USUAL = {
  coldestOverLiquidusK: 10,
  neighbourUnderSolidusK: 10,
  plasticLimitC: 200,
  riseLimitCPerS: null,
  dialLimitC: null,
} as const;

export const GOALS_BY_ALLOY: Record<AlloyName, HeatGoals> = {
  SAC305: { ...USUAL, ceilings: 'leadFree' },
  Sn63Pb37: { ...USUAL, ceilings: 'tinLead' },
  Sn42Bi58: { ...USUAL, ceilings: 'tinLead' },
};

/** The dials that a plan may ask for on a station. */
export function dialRangeC(
  { setC: [low, high] }: { readonly setC: readonly [number, number] },
  { dialLimitC }: HeatGoals,
): [number, number] {
  return [low, Math.max(low, Math.min(high, dialLimitC ?? high))];
}

/** One set for each alloy, as a bench keeps them. */
export const goalSetsSchema = z.object({
  SAC305: heatGoalsSchema.default(GOALS_BY_ALLOY.SAC305),
  Sn63Pb37: heatGoalsSchema.default(GOALS_BY_ALLOY.Sn63Pb37),
  Sn42Bi58: heatGoalsSchema.default(GOALS_BY_ALLOY.Sn42Bi58),
});
export type GoalSets = z.infer<typeof goalSetsSchema>;

/** Ceilings by thickness and volume, °C. Source: J-STD-020 classification temperatures (from memory). */
const CEILINGS = {
  leadFree: [
    { underMm: 1.6, byVolume: [260, 260, 260] },
    { underMm: 2.5, byVolume: [260, 250, 245] },
    { underMm: Infinity, byVolume: [250, 245, 245] },
  ],
  tinLead: [
    { underMm: 2.5, byVolume: [235, 220, 220] },
    { underMm: Infinity, byVolume: [220, 220, 220] },
  ],
} as const;

/** Highest temperature that a package's body is rated for, °C. */
export function packageCeilingC(
  ceilings: HeatGoals['ceilings'],
  { bodyMm: [w, h], heightMm }: { readonly bodyMm: readonly [number, number]; readonly heightMm: number },
): number {
  const volumeMm3 = w * h * heightMm;
  const { byVolume } = CEILINGS[ceilings].find((row) => heightMm < row.underMm)!;
  return byVolume[volumeMm3 < 350 ? 0 : volumeMm3 <= 2000 ? 1 : 2];
}

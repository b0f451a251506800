import { reynolds } from './jet';
import type { HeatPlan } from './plan';
import { outletSteadyC, type Station } from './station';

/** Where a step's air lies outside of what its correlation was measured on. */
export interface OutsideValidity {
  /** The figure and its range, in words. */
  readonly words: string;
  /** What that adds to the doubt of the film, relative, one standard deviation. Engineering estimates. */
  readonly share: number;
}

/** Martin 1977, in Incropera & DeWitt, impinging jets: where the single round nozzle was measured. */
const RANGES = { heightOverD: [2, 12], reynolds: [2000, 4e5] } as const;
/** At low Reynolds numbers the laminar form is kept: ± 30 % at a half of the least (judgement), from there to nothing at the least. */
const LAMINAR_SHARE = 0.3;
/** Beyond the measured heights the nearest is taken: so much for each doubling. */
const HEIGHT_SHARE = 0.15;

/**
 * A chip lies within 2.5 diameters of the axis, where the shape is a bell fitted to the measured mean: always some doubt. Held against
 * stagnation-point theory in validity.test.ts.
 */
export const SHAPE_SHARE = 0.05;

/** What of a plan's air lies outside of Martin's ranges: of each kind the step that is furthest out. */
export function outsideValidity(station: Station, plan: HeatPlan): OutsideValidity[] {
  const hot = plan.steps.filter((s) => s.airSetC !== null && s.flowLpm > 0);
  const ratios = hot.map((s) => s.heightMm / plan.nozzleMm);
  const numbers = hot.map((s) =>
    reynolds({
      nozzleMm: plan.nozzleMm,
      heightMm: s.heightMm,
      flowLpm: s.flowLpm,
      outletC: outletSteadyC(station, s.airSetC!, s.flowLpm, plan.ambientC),
      ambientC: plan.ambientC,
      multiplier: 1,
      spreadDiameters: station.spreadDiameters,
    }),
  );
  if (hot.length === 0) return [];
  const [low, high] = RANGES.heightOverD;
  const [slowest, fastest] = RANGES.reynolds;
  const [near, far] = [Math.min(...ratios), Math.max(...ratios)];
  const [least, most] = [Math.min(...numbers), Math.max(...numbers)];
  const found: OutsideValidity[] = [];
  if (near < low) found.push(height(near, Math.log2(low / near)));
  if (far > high) found.push(height(far, Math.log2(far / high)));
  if (least < slowest)
    found.push({
      words: `Reynolds number ${Math.round(least)}: the film is measured from ${slowest} on; less air is an estimate.`,
      share: Math.min(LAMINAR_SHARE, (2 * LAMINAR_SHARE * (slowest - least)) / slowest),
    });
  if (most > fastest)
    found.push({
      words: `Reynolds number ${Math.round(most)}: the film is measured up to ${fastest}.`,
      share: LAMINAR_SHARE,
    });
  return found;
}

const height = (ratio: number, doublings: number): OutsideValidity => ({
  words: `Nozzle at ${ratio.toFixed(1)} diameters: the film is measured from ${RANGES.heightOverD.join(' to ')}; beyond, the nearest is taken.`,
  share: HEIGHT_SHARE * doublings,
});

/** Relative doubt of the film from the shape under the nozzle and all that lies outside, one standard deviation. */
export const filmDoubt = (station: Station, plan: HeatPlan): number =>
  Math.hypot(SHAPE_SHARE, ...outsideValidity(station, plan).map((o) => o.share));

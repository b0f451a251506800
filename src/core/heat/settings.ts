import type { Board } from '../board';
import { WARMING_STEPS } from './family';
import { offsetLabel } from './offset-label';
import type { HeatPlan, HeatStep } from './plan';
import type { Station } from './station';

type Change = (plan: HeatPlan) => HeatPlan;

/** What is tried, setting by setting, the start's own first: what helps most first. Round figures that a hand can follow. */
export function settingsOf(station: Station, start: HeatPlan): Change[][] {
  return [plates(station, start), flows(station, start), heights(start), nozzles(station, start)];
}

/**
 * Every plate with every flow, the heights and nozzles turning with them, so that each of those meets each plate and each
 * flow; without a plate every flow with every height.
 */
export function spreadOver([plates, flows, heights, nozzles]: Change[][], start: HeatPlan): HeatPlan[] {
  const turns = plates.length > 1 ? [0] : heights.map((_, turn) => turn);
  const turning = (list: Change[], by: number): Change => list[by % list.length];
  return plates.flatMap((plate, p) =>
    flows.flatMap((flow, f) =>
      turns.map((turn) =>
        [plate, flow, turning(heights, p + f + turn), turning(nozzles, p + 2 * f + turn)].reduce(
          (plan, change) => change(plan),
          start,
        ),
      ),
    ),
  );
}

export const settingsKey = ({ plateSetC, nozzleMm, offsetMm, covers, steps }: HeatPlan): string =>
  JSON.stringify([plateSetC, nozzleMm, offsetMm, covers, steps.map((s) => [s.flowLpm, s.heightMm])]);

const eachHot = (plan: HeatPlan, change: (step: HeatStep, i: number) => Partial<HeatStep>): HeatPlan => ({
  ...plan,
  steps: plan.steps.map((s, i) => (s.airSetC === null ? s : { ...s, ...change(s, i) })),
});

/** Plates below are often set to 80 to 150 °C. Common practice, no source. */
const PLATES_C = [80, 120, 150];
/** How far one try moves a setting: steps that a hand can tell apart. Engineering estimates. */
const FLOW_SHARES = [0.7, 1.4];
const END_HEIGHTS_MM = [6, 12];

function plates({ plate }: Station, start: HeatPlan): Change[] {
  const others = plate ? PLATES_C.filter((c) => c <= plate.maxSetC && c !== start.plateSetC) : [];
  return [start.plateSetC, ...others].map((plateSetC) => (plan) => ({ ...plan, plateSetC }));
}

function nozzles({ nozzlesMm }: Station, { nozzleMm }: HeatPlan): Change[] {
  const sorted = [...nozzlesMm].sort((a, b) => a - b);
  const at = sorted.indexOf(nozzleMm);
  return [nozzleMm, sorted[at - 1], sorted[at + 1]]
    .filter((n) => n !== undefined)
    .map((nozzleMm) => (plan) => ({ ...plan, nozzleMm }));
}

function flows({ flowLpm: [low, high] }: Station, start: HeatPlan): Change[] {
  const now = start.steps[0].flowLpm;
  const others = FLOW_SHARES.map((share) => Math.min(high, Math.max(low, Math.round((now * share) / 2) * 2)));
  return [...new Set([now, ...others])].map((flowLpm) => (plan) => eachHot(plan, () => ({ flowLpm })));
}

/** The last, hottest steps nearer to the board or farther from it. */
function heights({ steps }: HeatPlan): Change[] {
  const at = (heightMm: (i: number) => number): Change => {
    return (plan) => eachHot(plan, (_, i) => (i < WARMING_STEPS ? {} : { heightMm: heightMm(i) }));
  };
  return [at((i) => steps[i].heightMm), ...END_HEIGHTS_MM.map((mm) => at(() => mm))];
}

/** What differs from the plan that was begun with, in words; a flow that is the same everywhere is told once. */
export function changesOf(board: Board, start: HeatPlan, found: HeatPlan): string[] {
  const covers = found.covers.filter((ref) => !start.covers.includes(ref));
  const hot = found.steps.filter((s) => s.airSetC !== null);
  const oneFlow = hot.every((s) => s.flowLpm === hot[0].flowLpm);
  const steps = found.steps.flatMap((s, i) => {
    const was = start.steps[i];
    const words = [
      s.airSetC !== was.airSetC && `${s.airSetC} °C`,
      s.durationS !== was.durationS && `${s.durationS} s`,
      !oneFlow && s.flowLpm !== was.flowLpm && `${s.flowLpm} l/min`,
      s.heightMm !== was.heightMm && `${s.heightMm} mm`,
    ].filter((word) => word !== false);
    return words.length > 0 ? [`step ${i + 1} ${words.join(', ')}`] : [];
  });
  return [
    found.plateSetC !== start.plateSetC && `plate at ${found.plateSetC} °C`,
    found.nozzleMm !== start.nozzleMm && `nozzle ${found.nozzleMm} mm`,
    found.offsetMm.some((mm, k) => mm !== start.offsetMm[k]) &&
      `nozzle ${offsetLabel(board, found) ?? 'over its middle'}`,
    covers.length > 0 && `cover over ${covers.join(', ')}`,
    oneFlow && hot[0].flowLpm !== start.steps[0].flowLpm && `${hot[0].flowLpm} l/min`,
    ...steps,
  ].filter((words) => words !== false);
}

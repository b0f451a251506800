import type { PartRef } from '../identities';
import { partByRef, type Board } from '../board';
import type { AlloyName } from '../joints';
import { fail, ok, type Result } from '../result';
import { MOST_OFFSET_MM, heatPlanSchema, nozzleFor, startingPlan, type HeatPlan, type HeatStep } from './plan';
import { UPPER_BOARD, usualStack, type Purpose } from './purpose';
import type { Station } from './station';

/**
 * One change to a plan, as a typed line, a field or a drag makes it. Steps are counted from 0; null takes a setting back
 * to none, or to what is usual.
 */
export type PlanEdit =
  | { readonly edit: 'step'; readonly index: number; readonly change: Partial<Omit<HeatStep, 'name'>> }
  | { readonly edit: 'addStep' }
  | { readonly edit: 'dropStep'; readonly index: number }
  | { readonly edit: 'plate'; readonly setC: number | null }
  | { readonly edit: 'cover'; readonly ref: PartRef; readonly on: boolean }
  | { readonly edit: 'part'; readonly ref: PartRef }
  | { readonly edit: 'nozzle'; readonly mm: number }
  | { readonly edit: 'alloy'; readonly alloy: AlloyName }
  | { readonly edit: 'limit'; readonly ref: PartRef; readonly maxC: number | null }
  | {
      readonly edit: 'purpose';
      readonly purpose: Purpose;
      /** The part to come back to from parting two boards. */
      readonly homeRef?: string;
    }
  | { readonly edit: 'softens'; readonly softensC: number }
  | { readonly edit: 'sweep'; readonly radiusMm: number | null }
  | { readonly edit: 'offset'; readonly xMm: number; readonly yMm: number }
  | {
      readonly edit: 'stack';
      readonly sizeMm: readonly [number, number];
      readonly xMm?: number;
      readonly yMm?: number;
      readonly gapMm?: number;
    };

/** What a plan may be set to beside what its station can. Common practice. */
const LEAST_PLATE_C = 30;
const LIMIT_C: readonly [number, number] = [40, 400];
const SOFTENS_C: readonly [number, number] = [60, 210];
const MOST_SWEEP_MM = 40;

const within = (value: number, [low, high]: readonly [number, number]): boolean => value >= low && value <= high;

/**
 * The only way to change a plan: the changed plan, or what was expected. What it gives holds against the plan's own schema
 * and can be set on the station.
 */
export function applyPlanEdit(board: Board, station: Station, plan: HeatPlan, edit: PlanEdit): Result<HeatPlan> {
  const refused = refusalOf(board, station, plan, edit);
  if (refused !== undefined) return fail(refused);
  const parsed = heatPlanSchema.safeParse(changed(board, station, plan, edit));
  if (parsed.success) return ok(parsed.data);
  const [issue] = parsed.error.issues;
  return fail(`${issue.path.slice(-1).join('')}: ${issue.message}.`);
}

/** Why an edit cannot be made here, or nothing. */
function refusalOf(board: Board, station: Station, plan: HeatPlan, edit: PlanEdit): string | undefined {
  switch (edit.edit) {
    case 'step':
      return noStep(plan, edit.index) ?? unsettable(station, edit.change);
    case 'dropStep':
      return noStep(plan, edit.index);
    case 'plate':
      return refusedPlate(station, edit.setC);
    case 'cover':
      return noNeighbour(board, plan, edit.ref);
    case 'limit':
      if (edit.maxC !== null && !within(edit.maxC, LIMIT_C))
        return `Expected a limit from ${LIMIT_C.join(' to ')} °C; got ${edit.maxC}.`;
      return noNeighbour(board, plan, edit.ref);
    case 'part':
      return partByRef(board, edit.ref) ? undefined : `Expected a part of this board; got "${edit.ref}".`;
    case 'nozzle':
      return station.nozzlesMm.includes(edit.mm)
        ? undefined
        : `Expected a nozzle of ${station.nozzlesMm.join(', ')} mm; got "${edit.mm}".`;
    case 'softens':
      return within(edit.softensC, SOFTENS_C)
        ? undefined
        : `Expected a softening temperature from ${SOFTENS_C.join(' to ')} °C; got ${edit.softensC}.`;
    case 'sweep':
      return edit.radiusMm === null || within(edit.radiusMm, [0, MOST_SWEEP_MM])
        ? undefined
        : `Expected a circle of 0 to ${MOST_SWEEP_MM} mm radius; got ${edit.radiusMm}.`;
    case 'offset':
      if (plan.purpose === 'partBoards')
        return 'Expected a plan for one part: where boards are parted the nozzle is moved over all of them.';
      return [edit.xMm, edit.yMm].every((mm) => Math.abs(mm) <= MOST_OFFSET_MM)
        ? undefined
        : `Expected up to ${MOST_OFFSET_MM} mm beside the middle along x and y; got ${edit.xMm}, ${edit.yMm}.`;
    case 'stack':
      return plan.purpose === 'partBoards'
        ? undefined
        : 'Expected a plan that parts two boards (for parting); got another.';
    case 'addStep':
    case 'alloy':
    case 'purpose':
      return undefined;
  }
}

const noStep = (plan: HeatPlan, index: number): string | undefined =>
  Number.isInteger(index) && index >= 0 && index < plan.steps.length
    ? undefined
    : `Expected a step from 1 to ${plan.steps.length}; got "${index + 1}".`;

function unsettable(station: Station, { airSetC, flowLpm }: Partial<HeatStep>): string | undefined {
  if (airSetC != null && !within(airSetC, station.setC))
    return `Expected a dial from ${station.setC.join(' to ')} °C on ${station.name}; got ${airSetC}.`;
  // No air needs no flow.
  if (flowLpm !== undefined && airSetC !== null && !within(flowLpm, station.flowLpm))
    return `Expected a flow from ${station.flowLpm.join(' to ')} l/min on ${station.name}; got ${flowLpm}.`;
  return undefined;
}

function refusedPlate(station: Station, setC: number | null): string | undefined {
  if (setC === null) return undefined;
  if (!station.plate) return `${station.name} has no plate.`;
  const { maxSetC } = station.plate;
  return within(setC, [LEAST_PLATE_C, maxSetC])
    ? undefined
    : `Expected a plate from ${LEAST_PLATE_C} to ${maxSetC} °C; got ${setC}.`;
}

function noNeighbour(board: Board, plan: HeatPlan, ref: PartRef): string | undefined {
  if (!partByRef(board, ref)) return `Expected a part of this board; got "${ref}".`;
  return ref === plan.partRef ? `${ref} is the part being worked on: expected a neighbour.` : undefined;
}

function changed(board: Board, station: Station, plan: HeatPlan, edit: PlanEdit): HeatPlan {
  switch (edit.edit) {
    case 'step':
      return { ...plan, steps: plan.steps.map((s, i) => (i === edit.index ? { ...s, ...edit.change } : s)) };
    case 'addStep': {
      const last = plan.steps[plan.steps.length - 1];
      return { ...plan, steps: [...plan.steps, { ...last, name: `step ${plan.steps.length + 1}` }] };
    }
    case 'dropStep':
      return { ...plan, steps: plan.steps.filter((_, i) => i !== edit.index) };
    case 'plate':
      return { ...plan, plateSetC: edit.setC };
    case 'cover': {
      const others = plan.covers.filter((ref) => ref !== edit.ref);
      return { ...plan, covers: edit.on ? [...others, edit.ref] : others };
    }
    case 'part':
      return { ...plan, partRef: edit.ref, offsetMm: [0, 0], covers: plan.covers.filter((c) => c !== edit.ref) };
    case 'nozzle':
      return { ...plan, nozzleMm: edit.mm };
    case 'alloy':
      return { ...plan, alloy: edit.alloy };
    case 'limit': {
      const others = Object.fromEntries(Object.entries(plan.limitsC).filter(([ref]) => ref !== edit.ref));
      return { ...plan, limitsC: edit.maxC === null ? others : { ...others, [edit.ref]: edit.maxC } };
    }
    case 'purpose':
      return planFor(board, station, plan, edit.purpose, edit.homeRef);
    case 'softens':
      return { ...plan, softensC: edit.softensC };
    case 'sweep':
      return { ...plan, sweepMm: edit.radiusMm };
    case 'offset':
      return { ...plan, offsetMm: [edit.xMm, edit.yMm] };
    case 'stack': {
      const was = plan.stack ?? usualStack(board);
      const [w, h] = edit.sizeMm;
      const { xMm = was.xMm, yMm = was.yMm, gapMm = was.gapMm } = edit;
      return { ...plan, stack: { ...was, sizeMm: [w, h], xMm, yMm, gapMm } };
    }
  }
}

/**
 * Another purpose begins with the first plan for it, on the same part and alloy.
 * @param homeRef the part to come back to from parting two boards.
 */
export function planFor(
  board: Board,
  station: Station,
  plan: HeatPlan,
  purpose: Purpose,
  homeRef: string = board.ports[0].controller,
): HeatPlan {
  const partRef = plan.partRef === UPPER_BOARD ? homeRef : plan.partRef;
  const stack = purpose === 'partBoards' ? (plan.stack ?? usualStack(board)) : plan.stack;
  const bodyMm = purpose === 'partBoards' ? stack!.sizeMm : board.packages[partByRef(board, partRef)!.package].bodyMm;
  const next = startingPlan(
    purpose === 'partBoards' ? UPPER_BOARD : partRef,
    plan.alloy,
    nozzleFor(station.nozzlesMm, bodyMm),
    purpose,
    stack,
  );
  const plateC = next.plateSetC === null || !station.plate ? null : Math.min(next.plateSetC, station.plate.maxSetC);
  return { ...next, ambientC: plan.ambientC, limitsC: plan.limitsC, softensC: plan.softensC, plateSetC: plateC };
}

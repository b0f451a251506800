import type { PartRef } from '../identities';
import { partByRef, type Board } from '../board';
import { UNDERFILLS, aimPlan, planFor, type HeatGoals, type HeatPlan, type Station, type UnderfillKind } from '../heat';
import { clearingSteps, stretchesOf, type ClearingStep } from './edges';
import { threatsRound, tryGuards, type Guard, type Threat } from './guards';
import { windowInDoubt, type DoubtfulWindow } from './windows';

/** Everything between the first touch of heat and the lifted part. */
export interface ClearingPlan {
  readonly lift: DoubtfulWindow;
  readonly liftPlan: HeatPlan;
  readonly threats: readonly Threat[];
  readonly guards: readonly Guard[];
  /** Only where there is underfill. */
  readonly soften?: {
    readonly plan: HeatPlan;
    readonly window: DoubtfulWindow;
    readonly steps: readonly ClearingStep[];
    readonly seconds: number;
    /** How often the site has to be warmed for all of it; null where no window is sure. */
    readonly warmings: number | null;
    readonly stopSigns: readonly string[];
  };
}

export interface ClearingRequest {
  readonly board: Board;
  readonly station: Station;
  readonly plan: HeatPlan;
  /** Null where there is none. */
  readonly underfill: UnderfillKind | null;
  readonly softensC?: number;
  readonly goals?: HeatGoals;
}

/** Plans guards, clearing and the lift of a part. @returns undefined for a part that the board does not have. */
export function planClearing({
  board,
  station,
  plan,
  underfill,
  softensC,
  goals,
}: ClearingRequest): ClearingPlan | undefined {
  const part = partByRef(board, plan.partRef);
  if (!part) return undefined;
  const liftPlan =
    plan.purpose === 'lift' ? plan : aimPlan(board, station, planFor(board, station, plan, 'lift'), goals).plan;
  const lift = windowInDoubt(board, station, liftPlan, goals);
  const stretches = stretchesOf(board, part);
  const threats = threatsRound(board, part, lift.verdict, stretches);
  const guards = tryGuards(board, station, liftPlan, lift.verdict, threats, goals);
  if (!underfill) return { lift, liftPlan, threats, guards };
  const started = {
    ...planFor(board, station, plan, 'soften'),
    softensC: softensC ?? UNDERFILLS[underfill].softensC,
    covers: plan.covers,
  };
  const soften = aimPlan(board, station, started, goals).plan;
  const window = windowInDoubt(board, station, soften, goals);
  const steps = clearingSteps(board, part, underfill);
  const seconds = steps.reduce((s, e) => s + e.seconds, 0);
  return {
    ...{ lift, liftPlan, threats, guards },
    soften: {
      ...{ plan: soften, window, steps, seconds },
      warmings: window.sure ? Math.ceil(seconds / (window.sure[1] - window.sure[0])) : null,
      stopSigns: stopSigns(underfill, part.ref),
    },
  };
}

/** Signs at which the tool comes off. Common practice, no source. */
const stopSigns = (kind: UnderfillKind, ref: PartRef): string[] => [
  'Solder turns bright or moves: too hot, air away at once.',
  `${ref} gives under the tool: it is not loose yet, never lever it.`,
  kind === 'hard'
    ? 'It chips like glass: too cold, warm again.'
    : 'It crumbles instead of peeling: too cold, warm again.',
  'Underfill of a neighbour begins to ooze: stop, cover it, less air.',
];

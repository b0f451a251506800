import type { Board } from '../board';
import { bestInFamily, type Tried } from './family';
import { GOALS_BY_ALLOY, dialRangeC, type HeatGoals } from './goals';
import type { Margin } from './margin';
import type { HeatPlan } from './plan';
import { LEAST_K, MOST_COVERS, guardWords } from './search';
import { offsetPlan } from './nozzle-offset';
import { changesOf, settingsOf, spreadOver } from './settings';
import type { Station } from './station';
import type { HeatVerdict } from './verdict';

/** What a short look found so far. */
export interface OpeningPlan extends Margin {
  readonly plan: HeatPlan;
  readonly verdict: HeatVerdict;
  readonly changes: readonly string[];
  /** Where guards were needed, in words; only at the end. */
  readonly guard?: string;
}

export interface OpeningOptions {
  readonly goals?: HeatGoals;
  /** Told whenever a better plan than all before is known: the first after one try. */
  readonly onBetter?: (found: OpeningPlan) => void;
}

/** Settings looked at beside the start's own. Engineering estimate: about six seconds with the rest on a slow computer. */
const LOOKED_AT = 2;
/** How near to the nearest limit a neighbour's has to be to bind a plan too, K. Engineering estimate. */
const BINDS_K = 1.5;

/**
 * Below this margin the nozzle is tried beside the middle of the part: about what a calibrated station leaves in doubt of a neighbour.
 * Engineering estimate.
 */
export const OFFSET_BELOW_K = 3;

/**
 * A short look for a plan that holds, for the moment a part is chosen: dials and durations at the start's own settings, then at
 * a few that lie far apart, the nearest neighbours covered where that is what is in the way, the nozzle beside the middle where that spares them, and the best gone through to the
 * end. {@link searchPlan} looks at them all.
 */
export function openingPlan(
  board: Board,
  whole: Station,
  start: HeatPlan,
  { goals = GOALS_BY_ALLOY[start.alloy], onBetter }: OpeningOptions = {},
): OpeningPlan {
  const station = { ...whole, setC: dialRangeC(whole, goals) };
  const all: Tried[] = [];
  let best: Tried | undefined;
  const told = (tried: Tried, guard?: string): OpeningPlan => {
    const { plan, verdict, marginK, fragile, ref } = tried;
    return { plan, verdict, marginK, fragile, ref, changes: changesOf(board, start, plan), guard };
  };
  const look = (plan: HeatPlan, quick = true): Tried => {
    const tried = bestInFamily(board, station, plan, { goals, quick });
    all.push(tried);
    if (!best || tried.score > best.score) {
      best = tried;
      onBetter?.(told(tried));
    }
    return tried;
  };
  /** Lays covers where a neighbour binds the best so far, as long as that is better. */
  const cover = (belowK: number): void => {
    const covered = withCovers(best!);
    if (best!.marginK < belowK && covered !== best!.plan) look(covered);
  };
  look(start);
  cover(0);
  const { covers } = best!.plan;
  for (const plan of farApart(spreadOver(settingsOf(station, start), { ...start, covers }))) {
    if (best!.score >= LEAST_K) break;
    look(plan);
  }
  cover(LEAST_K);
  const beside = best!.marginK < OFFSET_BELOW_K && offsetPlan(board, station, best!, goals);
  if (beside) look(beside);
  look(best!.plan, false);
  if (best!.plan.covers.length === start.covers.length) return told(best!);
  const bare = all
    .filter((t) => t.plan.covers.length === start.covers.length)
    .reduce((a, b) => (b.score > a.score ? b : a));
  // Nothing is said against plans without a guard before the best of them was gone through to the end.
  return told(best!, guardWords(best!, bare.marginK < 0 ? look(bare.plan, false) : bare));
}

/** The plan with those neighbours covered whose limits bind it, as many as a hand lays. */
function withCovers({ plan, marginK, verdict }: Tried): HeatPlan {
  const binding = verdict.neighbours.filter(
    (n) => n.limitC - n.peakC < marginK + BINDS_K && !plan.covers.includes(n.ref),
  );
  const free = Math.max(0, MOST_COVERS - plan.covers.length);
  return binding.length === 0 || free === 0
    ? plan
    : { ...plan, covers: [...plan.covers, ...binding.slice(0, free).map((n) => n.ref)] };
}

/** A few of a list, evenly from its middle parts. */
const farApart = <T>(list: readonly T[]): T[] =>
  Array.from({ length: LOOKED_AT }, (_, i) => list[Math.floor(((i + 0.5) * list.length) / LOOKED_AT)]);

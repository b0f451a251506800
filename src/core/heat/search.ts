import type { Board } from '../board';
import { ALLOYS } from '../joints';
import { bestInFamily, polishedInFull, type Tried } from './family';
import { GOALS_BY_ALLOY, dialRangeC, type HeatGoals } from './goals';
import { marginOf, type Margin } from './margin';
import { COARSE_MESH } from './mesh';
import type { HeatPlan } from './plan';
import { offsetPlan } from './nozzle-offset';
import { changesOf, settingsKey, settingsOf, spreadOver } from './settings';
import { simulateHeat } from './simulate';
import { doubtAxes, spreadOf } from './doubt';
import type { Station } from './station';
import { judgeHeat, type HeatVerdict } from './verdict';

export interface FoundPlan extends Margin {
  readonly plan: HeatPlan;
  readonly verdict: HeatVerdict;
  /** The margin less and more one standard deviation of what the station may be, the dial left as it is, K. */
  readonly underDoubtK: readonly [number, number];
  /** Where guards were needed: what the best plan without them would do to the part that needs one, in words. */
  readonly guard?: string;
  /** What was changed from the plan that the search began with, in words. */
  readonly changes: readonly string[];
  /** Settings tried, and runs of the reduced model. */
  readonly tried: number;
  readonly runs: number;
}

export interface SearchOptions {
  readonly goals?: HeatGoals;
  /** Called before each try; return false to stop. */
  readonly onProgress?: (tried: number, most: number) => boolean | void;
}

/** A margin from which on more is not worth a longer search. Engineering estimate. */
const ENOUGH_K = 12;
/** Below this margin covers are tried too: about what a calibrated station is in doubt by. Engineering estimate. */
export const LEAST_K = 6;
/** How far above the nearest limit a neighbour's may lie to be covered: in every try, and for the best. Estimates. */
const STANDS_IN_THE_WAY_K = 0.01;
const SPENT_ELSEWHERE_K = 10;
/** More covers than a hand lays before the air. Engineering estimate. */
export const MOST_COVERS = 3;
/** The settings are gone through so often at most, each time from the best so far. */
const PASSES = 2;
/** Settings whose durations and dials are gone through to the end: at least, and at most where few runs were needed. */
const FINALISTS = [2, 5] as const;
/** No further finalist after so many runs. Engineering estimate: about half a minute in a browser. */
const ENOUGH_RUNS = 1400;

/**
 * Searches plate, nozzle, flow, height, covers and where the nozzle stands: a spread of settings first, since some help only together, then from
 * the best of them one setting after the other; for each, the dials and durations with the most margin. The best are gone
 * through to the end and polished by the full solver.
 * @returns undefined when `onProgress` asked to stop.
 */
export function searchPlan(
  board: Board,
  whole: Station,
  start: HeatPlan,
  options: SearchOptions = {},
): FoundPlan | undefined {
  const goals = options.goals ?? GOALS_BY_ALLOY[start.alloy];
  const station = { ...whole, setC: dialRangeC(whole, goals) };
  const settings = settingsOf(station, start);
  const spread = spreadOver(settings, start);
  const most = 2 + FINALISTS[0] + spread.length + 2 * PASSES * settings.reduce((sum, s) => sum + s.length - 1, 0);
  const tally = { tried: 0, runs: 0 };
  const all: Tried[] = [];
  let stopped = false;
  const once = (plan: HeatPlan, quick = true): Tried | undefined => {
    stopped ||= options.onProgress?.(tally.tried, most) === false;
    if (stopped) return undefined;
    tally.tried += 1;
    const best = bestInFamily(board, station, plan, { goals, quick });
    tally.runs += best.runs;
    if (quick) all.push(best);
    return best;
  };
  /** The plan with neighbours covered one by one, those first whose limit is nearest, as long as that is better. */
  const guarded = (from: Tried, withinK: number): Tried => {
    let best = from;
    while (best.marginK < LEAST_K && best.plan.covers.length < MOST_COVERS) {
      const { plan, marginK, verdict } = best;
      const next = verdict.neighbours.find((n) => !plan.covers.includes(n.ref));
      if (!next || next.limitC - next.peakC > marginK + withinK) break;
      const covered = once({ ...plan, covers: [...plan.covers, next.ref] });
      if (!covered || covered.score <= best.score) break;
      best = covered;
    }
    return best;
  };
  const tryPlan = (plan: HeatPlan): Tried | undefined => {
    const tried = once(plan);
    return tried && guarded(tried, STANDS_IN_THE_WAY_K);
  };

  let best = tryPlan(start);
  const better = (next: Tried | undefined): boolean =>
    next !== undefined && best !== undefined && next.score > best.score;
  const enough = (): boolean => best === undefined || best.score >= ENOUGH_K;
  const seen = new Set([settingsKey(start)]);
  const isNew = (plan: HeatPlan): boolean => seen.size < seen.add(settingsKey(plan)).size;
  for (const plan of spread.filter(isNew)) {
    if (enough()) break;
    const next = once(plan);
    if (better(next)) best = next;
  }
  /** Goes through the settings from the best so far. */
  const descend = (): void => {
    for (const change of settings.flat()) {
      if (enough()) break;
      const plan = change(best!.plan);
      if (!isNew(plan)) continue;
      const next = tryPlan(plan);
      if (better(next)) best = next;
    }
  };
  for (let pass = 0; pass < PASSES; pass++) {
    const from = best;
    descend();
    if (best === from) break;
  }
  // A cover may help where no neighbour is the nearest limit: what is spared there can be spent on the joints.
  const covered = best && guarded(best, SPENT_ELSEWHERE_K);
  if (better(covered)) {
    best = covered;
    if (tally.runs < ENOUGH_RUNS) descend();
  }
  // So may a nozzle beside the middle, the covers then laid for where it stands.
  const beside = best && best.marginK < LEAST_K ? offsetPlan(board, station, best, goals) : undefined;
  const aside = beside && tryPlan(beside);
  if (better(aside)) best = aside;
  all.sort((a, b) => b.score - a.score);
  const finalists: Tried[] = [];
  for (const { plan } of all.slice(0, FINALISTS[1])) {
    if (stopped || (finalists.length >= FINALISTS[0] && tally.runs > ENOUGH_RUNS)) break;
    const finalist = once(plan, false);
    if (finalist) finalists.push(finalist);
  }
  if (stopped || finalists.length === 0) return undefined;
  const first = finalists.reduce((a, b) => (b.score > a.score ? b : a));
  const last = polishedInFull(board, station, first.plan, goals);
  const winner = { ...last, ...marginOf(last.verdict) };
  /** The best without more guards than the start has, gone through to the end before anything is said of it. */
  const bestBare = (): Tried | undefined => {
    const bare = all.find((t) => t.plan.covers.length === start.covers.length);
    return bare && once(bare.plan, false);
  };
  return {
    ...winner,
    guard: winner.plan.covers.length > start.covers.length ? guardWords(winner, bestBare()) : undefined,
    underDoubtK: underDoubt(board, station, winner, goals),
    changes: changesOf(board, start, winner.plan),
    ...tally,
  };
}

/** Told where even the best plan without guards breaks a limit. */
export function guardWords(
  winner: Margin & { plan: HeatPlan; verdict: HeatVerdict },
  bare: Tried | undefined,
): string | undefined {
  const guarded = winner.verdict.neighbours.find((n) => winner.plan.covers.includes(n.ref));
  if (!bare || bare.marginK >= 0 || winner.marginK < 0 || !guarded) return undefined;
  return `No plan without a guard holds: the best misses by ${(-bare.marginK).toFixed(1)} K (${bare.fragile}). With a cover on ${winner.plan.covers.join(' and ')}, ${guarded.ref} ${guarded.limited} stay at ${Math.round(guarded.peakC)} °C of ${Math.round(guarded.limitC)}.`;
}

/** The margin over the stations that this one may be, on the coarse mesh, where only the difference counts. */
function underDoubt(
  board: Board,
  station: Station,
  { plan, marginK }: { plan: HeatPlan; marginK: number },
  goals: HeatGoals,
): [number, number] {
  const coarse = (on: Station): number =>
    marginOf(judgeHeat(board, plan, simulateHeat(board, on, plan, { ...COARSE_MESH, frames: false })!, goals)).marginK;
  const middle = coarse(station);
  const peakK = ALLOYS[plan.alloy].liquidusC - plan.ambientC;
  const sdK = spreadOf(
    doubtAxes(station, plan).map((on) => coarse(on) - middle),
    peakK,
  );
  return [marginK - sdK, marginK + sdK];
}

import type { NetName } from '../identities';
import { suspects, weightsFor, type Belief } from './belief';
import { UNLISTED, targetRef } from './faults';
import { DEVICE_WORTH, HOUR_PRICE } from './repair-cost';
import type { RepairOption } from './repair-costing';
import { measurementId, testMinutes } from './measurement';
import { MISFIT_BELOW, misfitOf, type Misfit } from './misfit';
import type { TestContext } from './next';
import { DEFAULT_PRACTICE } from './practice';
import type { Reading } from './reading';
import { LEAST_CURE, type RankedActions, type RankedTest } from './step';

/** Why a job is better stopped, or sent on. */
export type StopReason = 'unlisted' | 'noChance' | 'tooDear';

/** What is best done next. */
export type NextMove =
  | { readonly kind: 'test'; readonly test: RankedTest }
  /**
   * A reading that nothing explains, or that alone speaks for the work, is taken a second time before any work.
   * @property reading its index.
   */
  | { readonly kind: 'again'; readonly reading: number }
  | { readonly kind: 'work'; readonly need: RepairOption; readonly cureChance: number }
  | { readonly kind: 'stop'; readonly reason: StopReason };

/** Where a job stands: what is best done next, and how far the listed faults explain what was read. */
export interface Standing {
  readonly move: NextMove;
  readonly misfit?: Misfit;
  /** Chance that something is at work that no list holds, and where, likeliest first; null is what is not drawn. */
  readonly unlisted: number;
  readonly unlistedAt: readonly { readonly net: NetName | null; readonly p: number }[];
  /** True where no listed fault explains what was read. */
  readonly noneListed: boolean;
}

export interface StandingContext extends TestContext {
  /** Works after which the complaint was still there. */
  readonly failedProofs?: number;
  /** Expected minutes when the job came in: three times as much is what a job of unknown worth may take. */
  readonly arrivalMinutes?: number;
}

/** From this chance on the unlisted leads. */
const UNLISTED_LEADS = 0.5;
/** So many proofs may fail before an unlisted lead stops the job. Source: common practice; the figure is an estimate. */
const MOST_FAILED = 2;
/** A test that says less than this is none, bits. Engineering estimate. */
const LEAST_BITS = 0.008;
/** Work with less chance than this is a guess. Engineering estimate. */
const GUESS_BELOW = 0.25;

/** True where no test says anything more and the best work is a guess. */
const onlyGuesses = ({ tests, work }: RankedActions): boolean =>
  !tests.some((t) => t.bits > LEAST_BITS) && (work?.cureChance ?? 0) < GUESS_BELOW;
/** A job of unknown worth may take so many times what was expected of it at arrival, or what a usual device is worth. Engineering estimates. */
const WORTH_OF_ARRIVAL = 3;
const WORTH_OF_USUAL = 1.5;

/**
 * What to do next. Before any work a reading that does not fit is taken again; where nothing listed explains what was read
 * the search is narrowed down as long as a test says anything; and a job stops when it can only lose.
 */
export function standingOf(
  belief: Belief,
  readings: readonly Reading[],
  ranked: RankedActions,
  context: StandingContext,
): Standing {
  const misfit = misfitOf(belief, readings, context.practice ?? DEFAULT_PRACTICE);
  const doesNotFit = misfit !== undefined && misfit.p < MISFIT_BELOW;
  const again = doesNotFit ? misfit.strange.find((i) => canBeRetaken(readings, i, context)) : undefined;
  const unlistedAt = belief.faults
    .flatMap((f, i) => (f.unlistedAt === undefined ? [] : [{ net: f.unlistedAt, p: belief.marginal[i] }]))
    .sort((a, b) => b.p - a.p);
  const unlisted = unlistedAt.reduce((sum, u) => sum + u.p, 0);
  // Something listed that is likelier still is worked on first.
  const listed = suspects(belief, context).find((s) => s.ref !== UNLISTED)?.p ?? 0;
  const leads = unlisted > listed && (unlisted >= UNLISTED_LEADS || onlyGuesses(ranked));
  const noneListed = leads || (doesNotFit && again === undefined);
  const common = { misfit, unlisted, unlistedAt, noneListed };
  if (again !== undefined) return { ...common, move: { kind: 'again', reading: again } };
  const move = moveOf(ranked, unlisted, leads, context);
  const lonely = move.kind === 'work' ? restsOn(belief, readings, move, context) : undefined;
  return { ...common, move: lonely === undefined ? move : { kind: 'again', reading: lonely } };
}

function moveOf(
  { tests, work, repairFirst }: RankedActions,
  unlisted: number,
  leads: boolean,
  context: StandingContext,
): NextMove {
  const [best] = tests.filter((t) => t.bits > LEAST_BITS);
  const toWork: NextMove | undefined = work && { kind: 'work', need: work.need, cureChance: work.cureChance };
  const toTest: NextMove | undefined = best && { kind: 'test', test: best };
  if (leads && (context.failedProofs ?? 0) >= MOST_FAILED) return { kind: 'stop', reason: 'unlisted' };
  // Nothing listed is likely: parts are not changed for the sake of it.
  if (leads) return toTest ?? { kind: 'stop', reason: 'unlisted' };
  const expected = repairFirst ? work?.expectedMinutes : (best?.expectedMinutes ?? work?.expectedMinutes);
  if (expected !== undefined && expected > worthMinutes(context) * (1 - unlisted))
    return { kind: 'stop', reason: 'tooDear' };
  const move = repairFirst ? (toWork ?? toTest) : (toTest ?? toWork);
  if (!move || (move.kind === 'work' && move.cureChance < LEAST_CURE)) return { kind: 'stop', reason: 'noChance' };
  return move;
}

/** Work with less chance without one reading rests on it. Engineering estimate. */
const RESTS_BELOW = 0.3;
/** A reading that takes longer is not taken again for safety, minutes. Engineering estimate. */
const QUICK_MINUTES = 2;

/** The one quick reading that work rests on and that was taken once. */
function restsOn(
  belief: Belief,
  readings: readonly Reading[],
  { need: { target }, cureChance }: Extract<NextMove, { kind: 'work' }>,
  context: StandingContext,
): number | undefined {
  const ref = targetRef(target);
  if (ref === undefined) return undefined;
  const { board } = belief.case.predictor;
  const odds = cureChance / Math.max(1e-6, 1 - cureChance);
  const [most] = weightsFor(belief, ref, context).filter((w) => w.decades > 0);
  if (!most || !canBeRetaken(readings, most.reading, context)) return undefined;
  const without = odds / 10 ** most.decades;
  const isQuick = testMinutes(board, readings[most.reading].measurement, context.access, context.bare) <= QUICK_MINUTES;
  return isQuick && without / (1 + without) < RESTS_BELOW ? most.reading : undefined;
}

/** What the device is worth, in minutes at the bench. */
function worthMinutes({ worth, practice, arrivalMinutes }: StandingContext): number {
  if (worth !== undefined) return (60 * worth) / (practice?.prices?.hour ?? HOUR_PRICE);
  const usual = (60 * WORTH_OF_USUAL * DEVICE_WORTH) / (practice?.prices?.hour ?? HOUR_PRICE);
  return Math.max(usual, WORTH_OF_ARRIVAL * (arrivalMinutes ?? 0));
}

/** True where a reading was taken once on the board as it is now: what was read before the last work cannot be had again. */
function canBeRetaken(readings: readonly Reading[], index: number, now: StandingContext): boolean {
  const state = (r: Pick<Reading, 'replaced' | 'swapped'> & { readonly absent?: Iterable<string> }): string =>
    JSON.stringify([[...(r.absent ?? [])].sort(), r.replaced ?? [], r.swapped ?? []]);
  const here = state(now);
  const id = measurementId(readings[index].measurement);
  const taken = readings.filter((r) => measurementId(r.measurement) === id && state(r) === here);
  return taken.length === 1 && taken[0] === readings[index];
}

import type { Belief } from './belief';
import { deeper, type Access } from './access';
import { targetKey, workNames } from './faults';
import type { Board } from '../board';
import { accessFor, measurementId, placeOf } from './measurement';
import type { Near } from './measurements/definition';
import { clearedFaults } from './reading';
import { outcomesOf, proposeTests, type Proposal, type TestContext } from './next';
import { inBenchOrder } from './order';
import { RepairCosting, type RepairOption } from './repair-costing';
import { likelyRows } from './likely';

/** A test, with what the job is then expected to take. */
export interface RankedTest extends Proposal {
  /** Minutes to a proven cure, this test included; undefined where it was not looked into. */
  readonly expectedMinutes?: number;
}

type WeighedTest = RankedTest & { readonly expectedMinutes: number };

/** Tests and work on one scale: minutes to a proven cure. */
export interface RankedActions {
  /** Looked into first, least minutes first; then the others by information for their minutes. */
  readonly tests: readonly RankedTest[];
  /** What to do first if nothing more is measured, and the minutes that are then to be expected. */
  readonly work?: { readonly need: RepairOption; readonly cureChance: number; readonly expectedMinutes: number };
  /** True where work now is expected to take less than any test first. */
  readonly repairFirst: boolean;
  /** What the job is expected to take with any test first: "why not mine?". */
  readonly weigh: (t: Proposal) => WeighedTest;
  /** The same of any work, by its key; undefined for what no fault needs that the belief holds. */
  readonly weighWork: (key: string) => { readonly expectedMinutes: number; readonly cureChance: number } | undefined;
}

/** So many of the most informative tests are looked into. Six did as well as sixteen and thirty on the small boards (measured). */
const LOOKED_INTO = 6;
/** Below this a test says next to nothing, bits. Engineering estimate. */
const LEAST_BITS = 0.003;
/** A test that saves less than this is not worth the reach for the probe, minutes. Engineering estimate. */
const LEAST_GAIN_MINUTES = 1.5;
/** No work is proposed that so rarely is part of the cure. */
export const LEAST_CURE = 0.02;
/** Outcomes rarer than this are not followed. */
const LEAST_CHANCE = 1e-3;

/**
 * Weighs the best tests against work done at once. A test is followed into each of its outcomes; what comes after is
 * taken as the lesser of two ways: work in the order of chance per minute, or work on what is then known, and the bits
 * that are missing for it gathered at the present rate. Source of the comparison: Heckerman, Breese, Rommelse (1995),
 * expected cost of observation; the rate is ours, held against exhaustive search in the tests.
 */
export function rankActions(
  belief: Belief,
  context: TestContext,
  allowed: (p: Proposal) => boolean = () => true,
): RankedActions {
  const { absent, access } = context;
  const done = clearedFaults({ replaced: context.replaced, swapped: context.swapped });
  const cure = new RepairCosting(belief, absent, new Set(workNames(done)), context.practice, context.worth);
  const inOrder = inBenchOrder(belief, context);
  const proposals = proposeTests(belief, context).filter((p) => inOrder(p) && allowed(p));
  const best = proposals.filter((t) => t.bits > LEAST_BITS).slice(0, LOOKED_INTO);
  const chances = cure.gather(belief.likely);
  const atOnce = cure.unmeasured(chances, access);
  const rate = best.reduce((most, t) => Math.max(most, t.bitsPerMinute), 1e-9);
  const minutesFrom = (after: Float64Array, then: Access): number =>
    Math.min(cure.unmeasured(after, then).minutes, cure.known(after, then) + cure.bits(after) / rate);
  const weigh = (t: Proposal): WeighedTest => {
    const { table, outcomes } = outcomesOf(belief, t.measurement, absent, done);
    const rows = likelyRows(belief.likely, table);
    const then = deeper(access, accessFor(t.measurement));
    const followed = outcomes.map((o) =>
      o.p < LEAST_CHANCE
        ? o.p * atOnce.minutes
        : o.p * minutesFrom(cure.gatherAfter(belief.likely, rows, o.given), then),
    );
    return { ...t, expectedMinutes: followed.reduce((s, v) => s + v, t.minutes) };
  };
  const weighed = inAcceptedOrder(best.map(weigh), belief.case.predictor.board, context.near);
  const narrowing = whatGetsWarm(belief, proposals);
  const share = cure.shares(chances);
  const need = atOnce.order.find((n) => share[cure.needs.indexOf(n)] >= LEAST_CURE);
  const work = need && {
    need,
    cureChance: cure.cureChance(chances, need),
    expectedMinutes: workMinutesFrom(cure, chances, need, access, minutesFrom),
  };
  const weighWork: RankedActions['weighWork'] = (key) => {
    const asked = cure.needs.find((n) => n.target.kind !== 'unlisted' && targetKey(n.target) === key);
    return (
      asked && {
        cureChance: cure.cureChance(chances, asked),
        expectedMinutes: workMinutesFrom(cure, chances, asked, access, minutesFrom),
      }
    );
  };
  return {
    ...{ weigh, weighWork },
    tests: [
      ...(narrowing ? [weigh(narrowing)] : []),
      ...[...weighed, ...proposals.filter((t) => !best.includes(t))].filter(
        (t) => !narrowing || measurementId(t.measurement) !== measurementId(narrowing.measurement),
      ),
    ],
    work,
    repairFirst:
      !narrowing && work !== undefined && !(weighed[0]?.expectedMinutes < work.expectedMinutes - LEAST_GAIN_MINUTES),
  };
}

/** From this chance on that a group of parts further off holds the fault, which of them it is comes first. Engineering estimate. */
const GROUP_LEADS = 0.5;

/**
 * Where a group of parts further off leads: a current into their net and a look at what gets warm. It tells the group's parts
 * apart, which belief counts as one: its bits are those besides.
 */
function whatGetsWarm({ faults, marginal }: Belief, proposals: readonly Proposal[]): Proposal | undefined {
  const leader = faults.findIndex((f, i) => f.furtherOff !== undefined && marginal[i] >= GROUP_LEADS);
  if (leader < 0) return undefined;
  const { net, parts } = faults[leader].furtherOff!;
  const found = proposals.find(({ measurement: m }) => m.kind === 'warmSpot' && m.net === net);
  if (!found) return undefined;
  const bits = found.bits + marginal[leader] * Math.log2(parts);
  return { ...found, bits, bitsPerMinute: bits / found.minutes };
}

/** Tests that differ by less than this are as good as equal, minutes. Engineering estimate. */
const NEAR_EQUAL_MINUTES = 0.4;
/** A test that is as good and says so many times as much comes first. Engineering estimate. */
const TELLING = 2;
/** Of tests that differ by less than this the nearest comes first, minutes. Engineering estimate. */
const NEAREST_MINUTES = 0.1;

/**
 * Least expected minutes first; but where one that is as good as equal says far more, that one, and where several are the
 * same, the one whose point is nearest.
 */
function inAcceptedOrder(tests: readonly WeighedTest[], board: Board, near: Near | undefined): WeighedTest[] {
  const sorted = [...tests].sort((a, b) => a.expectedMinutes - b.expectedMinutes);
  const [least] = sorted;
  if (!least) return sorted;
  const within = (minutes: number): WeighedTest[] =>
    sorted.filter((t) => t.expectedMinutes - least.expectedMinutes < minutes);
  const telling = within(NEAR_EQUAL_MINUTES).filter((t) => t.bits > TELLING * least.bits);
  const distance = (t: WeighedTest): number => {
    // Taken from outside, the probe has no way to go.
    const place = near && accessFor(t.measurement) !== 'closed' ? placeOf(board, t.measurement, near) : undefined;
    return place ? Math.hypot(place.xMm - near!.xMm, place.yMm - near!.yMm) : 0;
  };
  const first =
    telling.length > 0
      ? telling.sort((a, b) => b.bits - a.bits)
      : within(NEAREST_MINUTES).sort((a, b) => distance(a) - distance(b));
  return [...first, ...sorted.filter((t) => !first.includes(t))];
}

/** The work and its proof, and what is left to do where the proof still fails. */
function workMinutesFrom(
  cure: RepairCosting,
  chances: Float64Array,
  need: RepairOption,
  access: Access,
  minutesFrom: (after: Float64Array, then: Access) => number,
): number {
  const { chances: left, chance } = cure.failedWithout(chances, need);
  const own = cure.minutesOf(need, access);
  return chance > 0 ? own + chance * minutesFrom(left, need.onBoard ? 'out' : access) : own;
}

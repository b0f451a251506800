import type { Belief } from './belief';
import { deeper, type Access } from './access';
import { accessFor } from './measurement';
import { clearedFaults } from './reading';
import { outcomesOf, proposeTests, type Proposal, type TestContext } from './next';
import { RepairCosting, type RepairOption } from './repair-costing';

/** A test, with what the job is then expected to take. */
export interface RankedTest extends Proposal {
  /** Minutes to a proven cure, this test included; undefined where it was not looked into. */
  readonly expectedMinutes?: number;
}

/** Tests and work on one scale: minutes to a proven cure. */
export interface RankedActions {
  /** Looked into first, least minutes first; then the others by information for their minutes. */
  readonly tests: readonly RankedTest[];
  /** What to do first if nothing more is measured, and the minutes that are then to be expected. */
  readonly work?: { readonly need: RepairOption; readonly expectedMinutes: number };
  /** True where work now is expected to take less than any test first. */
  readonly repairFirst: boolean;
}

/** So many of the most informative tests are looked into. Six did as well as sixteen and thirty on the small boards (measured). */
const LOOKED_INTO = 6;
/** Below this a test says next to nothing, bits. Engineering estimate. */
const LEAST_BITS = 0.003;
/** A test that saves less than this is not worth the reach for the probe, minutes. Engineering estimate. */
const LEAST_GAIN_MINUTES = 1;
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
  const { space } = belief.case;
  const cleared = new Set(clearedFaults({ replaced: [...context.replaced], swapped: context.swapped }));
  const cure = new RepairCosting(belief, absent, cleared, context.practice, context.worth);
  const proposals = proposeTests(belief, context).filter(allowed);
  const best = proposals.filter((t) => t.bits > LEAST_BITS).slice(0, LOOKED_INTO);
  const chances = cure.gather(belief.likely);
  const atOnce = cure.unmeasured(chances, access);
  const rate = best.reduce((most, t) => Math.max(most, t.bitsPerMinute), 1e-9);
  const minutesFrom = (after: Float64Array, then: Access): number =>
    Math.min(cure.unmeasured(after, then).minutes, cure.known(after, then) + cure.bits(after) / rate);
  const weighed = best.map((t): RankedTest & { expectedMinutes: number } => {
    const { table, outcomes } = outcomesOf(belief, t.measurement, absent, cleared);
    const rows = space.likelyRows(belief.likely, table);
    const then = deeper(access, accessFor(t.measurement));
    const followed = outcomes.map((o) =>
      o.p < LEAST_CHANCE
        ? o.p * atOnce.minutes
        : o.p * minutesFrom(cure.gatherAfter(belief.likely, rows, o.given), then),
    );
    return { ...t, expectedMinutes: followed.reduce((s, v) => s + v, t.minutes) };
  });
  weighed.sort((a, b) => a.expectedMinutes - b.expectedMinutes);
  const [need] = atOnce.order;
  const work = need && { need, expectedMinutes: workMinutesFrom(cure, chances, need, access, minutesFrom) };
  return {
    tests: [...weighed, ...proposals.filter((t) => !best.includes(t))],
    work,
    repairFirst: work !== undefined && !(weighed[0]?.expectedMinutes < work.expectedMinutes - LEAST_GAIN_MINUTES),
  };
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

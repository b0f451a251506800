import type { PartRef } from '../identities';
import { formatChance } from '../units';
import { glimpsed, suspectName, suspects, type Belief, type BoardNow } from './belief';
import { measurementTitle, outcomeLabel } from './measurement';
import type { Measurement } from './measurements/registry';
import { outcomesOf, type Proposal } from './next';
import { likelyRows } from './likely';

/** Rows that fit a reading at least this well, compared with the best one, count as having expected it. */
const FITS_SHARE = 0.1;
/** A reading that so little of the belief expected is taken twice. Engineering estimate. */
export const SURPRISING_BELOW = 0.05;

/**
 * How much of the belief before a reading expected it: the chance of all that reads about so.
 * @param before the belief without the reading. @param reading its index in `after`.
 */
export function expectedShare(before: Belief, after: Belief, reading: number): number {
  const { table, likelihood } = after.evidence[reading];
  const mass = before.space.rowMass(before.p, table);
  const best = likelihood.reduce((most, l) => Math.max(most, l), 0);
  return mass.reduce((sum, m, row) => (likelihood[row] >= FITS_SHARE * best ? sum + m : sum), 0);
}

/** An outcome of a test that would put another suspect first. */
export interface RankingFlip {
  readonly measurement: Measurement;
  /** `TP7 to ground, resistance near 6.61 kΩ: then U9, 41 %.` */
  readonly summary: string;
  readonly chance: number;
}

/** An outcome rarer than this is not worth telling. */
const LEAST_CHANCE = 0.02;

/** What would change the mind: outcomes of the best tests after which another part leads, likeliest first. */
export function rankingFlips(
  belief: Belief,
  tests: readonly Proposal[],
  absent: ReadonlySet<PartRef>,
  cleared: readonly string[],
  now?: BoardNow,
): RankingFlip[] {
  const { board } = belief.case.predictor;
  const leader = suspects(belief, now)[0].ref;
  const turns = tests.flatMap(({ measurement: m }): RankingFlip[] => {
    const { table, outcomes } = outcomesOf(belief, m, absent, cleared);
    const rows = likelyRows(belief.likely, table);
    return outcomes
      .filter((o) => o.p >= LEAST_CHANCE)
      .flatMap((o) => {
        const top = suspects(glimpsed(belief, rows, o.given), now)[0];
        if (top.ref === leader) return [];
        const summary = `${measurementTitle(board, m)}, ${outcomeLabel(m, o)}: then ${suspectName(top.ref)}, ${formatChance(top.p)}.`;
        return [{ measurement: m, summary, chance: o.p }];
      });
  });
  return turns.sort((a, b) => b.chance - a.chance);
}

import type { Proposal } from './next';
import type { RankedActions } from './step';

/** A test held against what is proposed. */
export interface WhyNot {
  readonly bits: number;
  readonly minutes: number;
  /** What the job is expected to take with this test first, minutes. */
  readonly expectedMinutes: number;
  readonly words: string;
}

/** What a job is expected to take as it is best gone on with, minutes; undefined where nothing is proposed. */
export const expectedOf = ({ tests: [first], work }: RankedActions): number | undefined =>
  [first?.expectedMinutes, work?.expectedMinutes]
    .filter((m) => m !== undefined)
    .reduce<number | undefined>((least, m) => (least === undefined ? m : Math.min(least, m)), undefined);

/** What is expected of a job, held against what is expected as it is best gone on with. @param expectedMinutes of the whole job. */
export function againstProposed(ranked: RankedActions, expectedMinutes: number): string {
  const own = expectedOf(ranked);
  return own === undefined || expectedMinutes <= own
    ? 'As good as what is proposed.'
    : `Takes the job ${(expectedMinutes - own).toFixed(1)} minutes longer than what is proposed.`;
}

/** "Why not mine?": a test weighed against what is proposed, in minutes and bits. */
export function whyNot(ranked: RankedActions, proposal: Proposal): WhyNot {
  const { bits, minutes, expectedMinutes } = ranked.weigh(proposal);
  return { bits, minutes, expectedMinutes, words: againstProposed(ranked, expectedMinutes) };
}

import type { PartRef } from '../identities';

/** Limits that a plan can break. `notSaid`: kept before they were listed one by one. */
export const HEAT_LIMITS = ['coldest', 'inTime', 'neighbour', 'body', 'solder', 'rise', 'notSaid'] as const;
export type HeatLimit = (typeof HEAT_LIMITS)[number];

export interface NeighbourVerdict {
  readonly ref: PartRef;
  readonly what: string;
  /** What is limited: its joints, or its plastic body. */
  readonly limited: 'joints' | 'body';
  readonly peakC: number;
  readonly limitC: number;
  readonly atS: number;
  readonly holds: boolean;
}

export interface HeatVerdict {
  /** What the coldest joint has to reach: liquidus, or where underfill softens, or a warm site. */
  readonly reachC: number;
  /** When the coldest joint is there; null when never. */
  readonly reachedAtS: number | null;
  /** When the hand acts, nudges, lifts, clears: whole seconds; null when it never gets there. */
  readonly actAtS: number | null;
  /** When the hand has to stop: the coldest joint cools again, or the hottest one is about to melt. */
  readonly untilS: number | null;
  readonly aboveReachS: number;
  readonly coldestPeakC: number;
  /** The coldest joint at the last moment to melt at, if the hand is to act before the air goes. */
  readonly inTimeC: number;
  /** The worked part's own hottest joint, and what it must stay below where its solder must not melt. */
  readonly hottestPeakC: number;
  readonly ownLimitC: number | null;
  readonly bodyPeakC: number;
  readonly bodyLimitC: number;
  readonly fastestRiseCPerS: number;
  /** Large or limited neighbours, the one with the least margin first. */
  readonly neighbours: readonly NeighbourVerdict[];
  /** Small parts whose solder melts as well: they can be blown or dragged away. */
  readonly swimming: readonly string[];
  /** Which limits it breaks; none where it holds. */
  readonly breaks: readonly HeatLimit[];
  readonly holds: boolean;
  /** The headline: an instruction. */
  readonly headline: string;
  /** One sentence under it. */
  readonly sentence: string;
}

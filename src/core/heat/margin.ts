import type { PartRef } from '../identities';
import type { HeatVerdict } from './verdict';

/** How far a plan stays from the limit it comes nearest to. */
export interface Margin {
  /** K; negative where a limit is broken. */
  readonly marginK: number;
  /** The limit that is nearest, in words. */
  readonly fragile: string;
  /** The neighbour whose limit that is, where it is one. */
  readonly ref?: PartRef;
}

/** The nearest of all limits. */
export const marginOf = (verdict: HeatVerdict): Margin =>
  limitsOf(verdict).reduce((a, b) => (b.marginK < a.marginK ? b : a));

/** All limits: that the coldest joint melts, the part's own body, and the neighbours as the verdict orders them. */
export function limitsOf(verdict: HeatVerdict): Margin[] {
  return [
    {
      marginK: verdict.inTimeC - verdict.reachC,
      fragile:
        verdict.ownLimitC === null ? 'the coldest joint only just melts' : 'the coldest place only just gets there',
    },
    ...(verdict.ownLimitC === null
      ? []
      : [{ marginK: verdict.ownLimitC - verdict.hottestPeakC, fragile: 'its own solder' }]),
    { marginK: verdict.bodyLimitC - verdict.bodyPeakC, fragile: 'the part’s own body' },
    ...verdict.neighbours.map((n) => ({ marginK: n.limitC - n.peakC, fragile: `${n.ref} ${n.limited}`, ref: n.ref })),
  ];
}

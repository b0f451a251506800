import type { Fill } from './range-keys';

/** A field that holds the checksum of a range, in all images given. */
export interface FoundChecksum {
  readonly algorithm: string;
  readonly from: number;
  readonly to: number;
  readonly field: { readonly offset: number; readonly bytes: number; readonly bigEndian: boolean; readonly fill: Fill };
  /** The range with its field comes to zero: which of its words is the field does not show. */
  readonly anywhere?: true;
  /** How many as simple or simpler ones chance alone is expected to bring forth, among all that were tried. */
  readonly expectedFalsePositives: number;
}

/** Share of layouts whose true range is none of those that are tried. Engineering estimate. */
export const UNSEARCHED = 0.01;

/** What holds, with what tells it from others that change with the units in the same way. */
export interface Candidate {
  readonly independent: FoundChecksum;
  /** Candidates of the same change share it; none where only the value speaks. */
  readonly change?: string;
  /** Ranges that are as simple. */
  readonly ranges: number;
}

/** Of ranges that change alike and all hold, one is meant and the others hold by chance: which one, their values do not say. */
export function againstTwins(candidates: readonly Candidate[]): FoundChecksum[] {
  const families = new Map<string, Candidate[]>();
  for (const c of candidates) {
    if (c.change === undefined) continue;
    const family = families.get(c.change);
    if (family) family.push(c);
    else families.set(c.change, [c]);
  }
  return candidates.map(({ independent, change, ranges }) => {
    const rivals =
      change === undefined
        ? 0
        : families.get(change)!.filter((c) => c.independent !== independent && c.ranges <= ranges).length;
    return rivals === 0
      ? independent
      : { ...independent, expectedFalsePositives: independent.expectedFalsePositives + rivals / (rivals + 1) };
  });
}

/** Rank of 32-bit words as vectors over GF(2), by elimination. */
export function rankOverGf2(words: readonly number[]): number {
  const basis: number[] = [];
  for (const word of words) {
    let rest = word;
    for (const b of basis) rest = Math.min(rest, (rest ^ b) >>> 0);
    if (rest !== 0) basis.push(rest);
  }
  return basis.length;
}

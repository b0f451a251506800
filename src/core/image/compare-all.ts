import { alignImages, type AlignedStretch } from './align';
import { compareImages, type RegionDifference } from './compare';
import type { ImageFamily } from './family';
import { differingBytes, overviewOf, type OverviewCell } from './overview';

/** One image laid against the first. */
export interface AgainstFirst {
  readonly aligned: readonly AlignedStretch[];
  /** By region, where both are images of the family. */
  readonly regions: readonly RegionDifference[];
  readonly differingBytes: number;
  readonly movedBytes: number;
}

export interface SeenTogether {
  /** One for each image but the first. */
  readonly against: readonly AgainstFirst[];
  /** One for each image; the first has no differences. */
  readonly overviews: readonly (readonly OverviewCell[])[];
}

/**
 * Lays one to eight images against the first of them.
 * @param family where they are images of one; those of another length are compared without it.
 * @param onProgress told the share that is done.
 */
export function compareAll(
  images: readonly Uint8Array[],
  stretches: number,
  family?: ImageFamily,
  onProgress: (done: number) => void = () => {},
): SeenTogether {
  const [first, ...others] = images;
  const overviews = [overviewOf(first, stretches)];
  const against = others.map((other, k): AgainstFirst => {
    onProgress(k / others.length);
    const aligned = alignImages(first, other);
    overviews.push(overviewOf(other, stretches, { first, aligned }));
    const isOfFamily = family && [first, other].every((bytes) => bytes.length === family.sizeBytes);
    return {
      ...{ aligned, regions: isOfFamily ? compareImages(family, first, other, aligned) : [] },
      ...countsOf(first, other, aligned),
    };
  });
  return { against, overviews };
}

function countsOf(
  a: Uint8Array,
  b: Uint8Array,
  aligned: readonly AlignedStretch[],
): { differingBytes: number; movedBytes: number } {
  let [differing, movedBytes] = [0, 0];
  for (const { offset, length, shift, equal, extraBefore = 0 } of aligned) {
    differing += extraBefore;
    if (equal) movedBytes += shift ? length : 0;
    else differing += shift === undefined ? length : differingBytes(a, b, offset, offset + length, shift);
  }
  return { differingBytes: differing, movedBytes };
}

/** The stretch at an offset, by halving. */
export function stretchAt(aligned: readonly AlignedStretch[], offset: number): number {
  let [low, high] = [0, aligned.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (aligned[middle].offset <= offset) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Where the next difference to any of the others begins, from an offset on or back from it; none beyond the last. */
export function nextDifference(
  against: readonly (readonly AlignedStretch[])[],
  offset: number,
  step: 1 | -1,
): number | undefined {
  const places = against.flatMap((aligned) => {
    for (let k = stretchAt(aligned, offset); k >= 0 && k < aligned.length; k += step) {
      const { offset: at, equal, extraBefore } = aligned[k];
      if ((!equal || extraBefore) && (step > 0 ? at > offset : at < offset)) return [at];
    }
    return [];
  });
  if (places.length === 0) return undefined;
  return step > 0 ? Math.min(...places) : Math.max(...places);
}

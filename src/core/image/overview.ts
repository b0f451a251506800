import type { AlignedStretch } from './align';

/** What a stretch of an image mostly is. */
export type Texture = 'erased' | 'zero' | 'text' | 'plain' | 'code' | 'dense';

/** One stretch of an image in the overview. */
export interface OverviewCell {
  readonly texture: Texture;
  /** Share of its bytes that differ, 0 to 1; 0 where nothing is compared. */
  readonly differs: number;
}

/** Bits for each byte, scaled to what a stretch of its length can show. Engineering estimates. */
const DENSE_SHARE = 0.9;
const PLAIN_SHARE = 0.25;
const TEXT_SHARE = 0.85;
/** So many bytes of a stretch are looked at: more say nothing new. */
const MOST_LOOKED_AT = 4096;

/**
 * Cuts an image into equal stretches and says of each what it mostly is and how much of it differs.
 * @param against the image that it is compared with, and how this one lies against it as `alignImages` tells.
 */
export function overviewOf(
  bytes: Uint8Array,
  stretches: number,
  against?: { readonly first: Uint8Array; readonly aligned: readonly AlignedStretch[] },
): OverviewCell[] {
  const edges = edgesOf(bytes.length, stretches);
  const shares = against ? differingShares(against.first, bytes, against.aligned, stretches) : undefined;
  return Array.from({ length: stretches }, (_, s) => ({
    texture: textureOf(bytes, edges[s], edges[s + 1]),
    differs: shares?.[s] ?? 0,
  }));
}

const edgesOf = (length: number, stretches: number): number[] =>
  Array.from({ length: stretches + 1 }, (_, s) => Math.floor((s * length) / stretches));

function textureOf(bytes: Uint8Array, from: number, to: number): Texture {
  const first = bytes[from];
  let same = true;
  for (let i = from; i < to && same; i++) same = bytes[i] === first;
  if (same && first === 0xff) return 'erased';
  if (same && first === 0) return 'zero';
  const counts = new Uint32Array(256);
  const step = Math.max(1, Math.floor((to - from) / MOST_LOOKED_AT));
  let looked = 0;
  for (let i = from; i < to; i += step) {
    counts[bytes[i]] += 1;
    looked += 1;
  }
  const used = looked - counts[0] - counts[0xff];
  let printable = counts[10] + counts[13];
  for (let b = 32; b < 127; b++) printable += counts[b];
  if (used > looked / 8 && printable >= TEXT_SHARE * used) return 'text';
  let bits = 0;
  for (const n of counts) if (n > 0) bits -= (n / looked) * Math.log2(n / looked);
  const most = Math.min(8, Math.log2(looked));
  return bits >= DENSE_SHARE * most ? 'dense' : bits <= PLAIN_SHARE * most ? 'plain' : 'code';
}

function differingShares(
  a: Uint8Array,
  b: Uint8Array,
  aligned: readonly AlignedStretch[],
  stretches: number,
): Float64Array {
  const edges = edgesOf(a.length, stretches);
  const counts = new Float64Array(stretches);
  let s = 0;
  for (const { offset, length, shift, equal } of aligned) {
    if (equal) continue;
    for (let from = offset; from < offset + length;) {
      while (from >= edges[s + 1]) s += 1;
      const to = Math.min(offset + length, edges[s + 1]);
      counts[s] += shift === undefined ? to - from : differingBytes(a, b, from, to, shift);
      from = to;
    }
  }
  return counts.map((n, k) => n / (edges[k + 1] - edges[k]));
}

/** How many bytes of a range differ from what stands so far from them in another image. */
export function differingBytes(a: Uint8Array, b: Uint8Array, from: number, to: number, shift: number): number {
  let differing = 0;
  for (let i = from; i < to; i++) if (a[i] !== b[i + shift]) differing += 1;
  return differing;
}

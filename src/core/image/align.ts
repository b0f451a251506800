/** A stretch of the first image with what stands against it in the second. */
export interface AlignedStretch {
  readonly offset: number;
  readonly length: number;
  /** Where its counterpart stands, less its own offset; none where the second image has nothing in its place. */
  readonly shift?: number;
  /** Byte for byte the same as its counterpart. */
  readonly equal: boolean;
  /** Bytes that the second image has before this, and the first has not. */
  readonly extraBefore?: number;
}

interface Match {
  readonly a: number;
  readonly b: number;
  readonly length: number;
}

/** Moved content is found by blocks of so many bytes; more of them where more differs, so that the table stays small. */
const BLOCK = 32;
const MOST_BLOCKS = 1 << 15;
/** Equal bytes in place count as a match from here on; shorter ones are chance within what differs. */
const LEAST_SAME = 8;
/** A moved match that is shorter says nothing: tables and runs repeat such pieces. Engineering estimate. */
const LEAST_MOVED = 48;
/** An odd number near 2^32 over the golden ratio, which spreads bytes over all bits (Knuth, vol. 3, 6.4). */
const MULTIPLIER = 0x9e3779b1 | 0;

/**
 * Lays two images against each other: what is equal in its place, what is equal but moved, and what differs.
 * Moved content is found by a rolling sum over blocks of what differs (Karp and Rabin 1987), and each hit is compared byte
 * by byte. The stretches cover the first image once, in order.
 */
export function alignImages(a: Uint8Array, b: Uint8Array): AlignedStretch[] {
  const same = sameInPlace(a, b);
  const [restA, restB] = [gapsOf(same, a.length), gapsOf(same, b.length)];
  const moved = movedMatches(a, b, restA, restB);
  const matches = [...same, ...moved].sort((x, y) => x.a - y.a);
  return stretchesOf(matches, a.length, b.length);
}

/**
 * Runs that are equal at the same offset. Words are looked at, not bytes: eight equal bytes hold a whole aligned word.
 */
function sameInPlace(a: Uint8Array, b: Uint8Array): Match[] {
  const length = Math.min(a.length, b.length);
  const [wordsA, wordsB] = [wordsOf(a), wordsOf(b)];
  const words = length >> 2;
  const matches: Match[] = [];
  let free = 0;
  for (let word = 0; word < words; word++) {
    if (wordsA[word] !== wordsB[word]) continue;
    let from = 4 * word;
    while (word < words && wordsA[word] === wordsB[word]) word += 1;
    let to = 4 * word;
    while (from > free && a[from - 1] === b[from - 1]) from -= 1;
    while (to < length && a[to] === b[to]) to += 1;
    if (to - from < LEAST_SAME) continue;
    matches.push({ a: from, b: from, length: to - from });
    free = to;
  }
  return matches;
}

/** The bytes as words, where they lie so; copied once otherwise. */
function wordsOf(bytes: Uint8Array): Int32Array {
  const aligned = (bytes.byteOffset & 3) === 0 ? bytes : Uint8Array.from(bytes);
  return new Int32Array(aligned.buffer, aligned.byteOffset, aligned.length >> 2);
}

interface Range {
  readonly from: number;
  readonly to: number;
}

/** What lies between matches in place. */
function gapsOf(matches: readonly Match[], length: number): Range[] {
  const gaps: Range[] = [];
  let at = 0;
  for (const m of matches) {
    if (m.a > at) gaps.push({ from: at, to: m.a });
    at = m.a + m.length;
  }
  if (at < length) gaps.push({ from: at, to: length });
  return gaps;
}

const bytesIn = (ranges: readonly Range[]): number => ranges.reduce((sum, { from, to }) => sum + to - from, 0);

/** Content of the first image's gaps that stands elsewhere in the second's; greedy in the order of the second image. */
function movedMatches(a: Uint8Array, b: Uint8Array, restA: readonly Range[], restB: readonly Range[]): Match[] {
  let block = BLOCK;
  while (bytesIn(restA) / block > MOST_BLOCKS) block *= 2;
  const table = blockTable(a, restA, block);
  if (table.size === 0) return [];
  // The multiplier to the power of the block's length takes the byte that leaves out of the sum.
  let leaves = 1;
  for (let i = 0; i < block; i++) leaves = Math.imul(leaves, MULTIPLIER);
  const { bits, drop } = table;
  const takenTo = new Map<Range, number>();
  const matches: Match[] = [];
  for (const gap of restB) {
    let next = gap.from;
    while (next + block <= gap.to) {
      let sum = 0;
      let at = next;
      for (; at < next + block; at++) sum = (Math.imul(sum, MULTIPLIER) + b[at]) | 0;
      let match: Match | undefined;
      for (;;) {
        if ((bits[(sum >>> drop) >>> 5] & (1 << ((sum >>> drop) & 31))) !== 0)
          match = extended(a, b, table.find(sum), at - block, block, restA, gap, takenTo);
        if (match || at >= gap.to) break;
        sum = (Math.imul(sum, MULTIPLIER) + b[at] - Math.imul(leaves, b[at - block])) | 0;
        at += 1;
      }
      if (match) matches.push(match);
      next = match ? match.b + match.length : gap.to;
    }
  }
  return matches;
}

/** Block sums with the offset of the first block that has each; a bit table in front answers most questions. */
class BlockTable {
  size = 0;
  private readonly offsets = new Map<number, number>();
  /** A set bit: perhaps in the map. Read directly by the loop over the bytes. */
  readonly bits: Uint32Array;
  /** Bits of a sum that do not choose. */
  readonly drop: number;

  /** @param most entries; the bit table is 64 times as large, so that one chance question in 64 reaches the map. */
  constructor(most: number) {
    const width = Math.min(24, Math.max(12, Math.ceil(Math.log2(64 * most))));
    this.bits = new Uint32Array(2 ** (width - 5));
    this.drop = 32 - width;
  }

  add(sum: number, offset: number): void {
    if (this.offsets.has(sum)) return;
    this.offsets.set(sum, offset);
    this.size += 1;
    const bit = sum >>> this.drop;
    this.bits[bit >>> 5] |= 1 << (bit & 31);
  }

  find(sum: number): number | undefined {
    return this.offsets.get(sum);
  }
}

function blockTable(a: Uint8Array, ranges: readonly Range[], block: number): BlockTable {
  const table = new BlockTable(Math.ceil(bytesIn(ranges) / block));
  for (const { from, to } of ranges) {
    for (let at = from; at + block <= to; at += block) {
      // One byte over and over stands in many places: it says nothing.
      let other = at + 1;
      while (other < at + block && a[other] === a[at]) other += 1;
      if (other === at + block) continue;
      let sum = 0;
      for (let i = at; i < at + block; i++) sum = (Math.imul(sum, MULTIPLIER) + a[i]) | 0;
      table.add(sum, at);
    }
  }
  return table;
}

/** A hit checked and grown in both directions, inside its gaps and clear of what is taken already. */
function extended(
  a: Uint8Array,
  b: Uint8Array,
  hit: number | undefined,
  atB: number,
  block: number,
  restA: readonly Range[],
  gapB: Range,
  takenTo: Map<Range, number>,
): Match | undefined {
  if (hit === undefined) return undefined;
  for (let i = 0; i < block; i++) if (a[hit + i] !== b[atB + i]) return undefined;
  const gapA = gapAround(restA, hit);
  const floor = takenTo.get(gapA) ?? gapA.from;
  if (hit < floor) return undefined;
  const lowB = takenTo.get(gapB) ?? gapB.from;
  let before = 0;
  while (hit - before > floor && atB - before > lowB && a[hit - before - 1] === b[atB - before - 1]) before += 1;
  let after = block;
  while (hit + after < gapA.to && atB + after < gapB.to && a[hit + after] === b[atB + after]) after += 1;
  if (before + after < LEAST_MOVED) return undefined;
  takenTo.set(gapA, hit + after);
  takenTo.set(gapB, atB + after);
  return { a: hit - before, b: atB - before, length: before + after };
}

function gapAround(ranges: readonly Range[], at: number): Range {
  let [low, high] = [0, ranges.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (ranges[middle].from <= at) low = middle;
    else high = middle - 1;
  }
  return ranges[low];
}

/** The matches, and between them what is paired byte by byte, absent from the second image, or extra in it. */
function stretchesOf(matches: readonly Match[], lengthA: number, lengthB: number): AlignedStretch[] {
  const stretches: AlignedStretch[] = [];
  let [at, shift] = [0, 0];
  const gap = (nextA: number, nextB: number): number => {
    const [inA, inB] = [nextA - at, Math.max(0, nextB - (at + shift))];
    const paired = Math.min(inA, inB);
    if (paired > 0) stretches.push({ offset: at, length: paired, shift, equal: false });
    if (inA > paired) stretches.push({ offset: at + paired, length: inA - paired, equal: false });
    return inB - paired;
  };
  for (const { a, b, length } of matches) {
    const extra = gap(a, b);
    stretches.push({ offset: a, length, shift: b - a, equal: true, ...(extra > 0 && { extraBefore: extra }) });
    [at, shift] = [a + length, b - a];
  }
  gap(lengthA, lengthB);
  return stretches;
}

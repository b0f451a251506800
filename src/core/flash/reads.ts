/** What several reads of one chip say together. */
export interface ReadVerdict {
  /** Bit by bit what most reads say. */
  readonly bytes: Uint8Array;
  /** Bytes on which the reads do not agree, first ones. */
  readonly unstable: readonly { readonly offset: number; readonly agreeing: number }[];
  readonly unstableBytes: number;
  /** Chance of a single bit to be read wrong, from how often reads disagree. */
  readonly bitErrorRate: number;
  /** Bits of the majority that are still expected to be wrong. */
  readonly wrongBitsExpected: number;
  readonly good: boolean;
  /** Reads that would make it good; undefined where no reasonable number does. */
  readonly readsWanted?: number;
  readonly summary: string;
}

/** An image is called good with fewer wrong bits expected than this: one image in a thousand. Engineering estimate. */
const MOST_WRONG_BITS = 1e-3;
const MOST_READS = 15;
const MOST_LISTED = 512;
/** Two reads alike prove contact as well as this many bits can: no more errors than these were missed, 95 %. Rule of three. */
const RULE_OF_THREE = 3;

/**
 * Puts reads together bit by bit. Errors that change from read to read are outvoted; ones that are the same every time,
 * a stuck line or worn cells, are not seen here but by checksums.
 * @param reads one or more of the same length.
 */
export function judgeReads(reads: readonly Uint8Array[]): ReadVerdict {
  const [first] = reads;
  const bytes = new Uint8Array(first.length);
  const unstable: { offset: number; agreeing: number }[] = [];
  let [unstableBytes, minority] = [0, 0];
  for (let i = 0; i < first.length; i++) {
    if (reads.every((r) => r[i] === first[i])) {
      bytes[i] = first[i];
      continue;
    }
    const { byte, outvoted } = majority(reads, i);
    bytes[i] = byte;
    minority += outvoted;
    unstableBytes += 1;
    if (unstable.length < MOST_LISTED)
      unstable.push({ offset: i, agreeing: reads.filter((r) => r[i] === byte).length });
  }
  const bits = 8 * first.length;
  const seen = bits * Math.max(1, reads.length - 1);
  const rate = minority > 0 ? minority / (bits * reads.length) : reads.length > 1 ? RULE_OF_THREE / seen : 0.5;
  // Reads all alike are wrong only where each went wrong in the same bit.
  const wrongBitsExpected = bits * (minority > 0 ? majorityWrong(rate, reads.length) : rate ** reads.length);
  // Two reads that differ have no majority.
  const good = reads.length > (minority > 0 ? 2 : 1) && wrongBitsExpected < MOST_WRONG_BITS;
  const readsWanted = good ? reads.length : minority > 0 ? wanted(bits, rate) : reads.length + 1;
  const about = {
    unstable,
    unstableBytes,
    bitErrorRate: minority > 0 ? rate : 0,
    wrongBitsExpected,
    good,
    readsWanted,
  };
  return { bytes, ...about, summary: summaryOf(reads.length, about) };
}

function majority(reads: readonly Uint8Array[], at: number): { byte: number; outvoted: number } {
  let [byte, outvoted] = [0, 0];
  for (let bit = 0; bit < 8; bit++) {
    const set = reads.reduce((sum, r) => sum + ((r[at] >>> bit) & 1), 0);
    if (2 * set > reads.length) byte |= 1 << bit;
    outvoted += Math.min(set, reads.length - set);
  }
  return { byte, outvoted };
}

/** Chance that at least half of n reads of a bit are wrong: for small rates its first term. */
function majorityWrong(rate: number, n: number): number {
  const need = Math.ceil((n + 1) / 2);
  const enough = n % 2 === 0 ? n / 2 : need;
  let ways = 1;
  for (let k = 0; k < enough; k++) ways = (ways * (n - k)) / (k + 1);
  return Math.min(1, ways * rate ** enough);
}

/** The odd number of reads whose majority is good at this rate of wrong bits; undefined where none is. */
function wanted(bits: number, rate: number): number | undefined {
  for (let n = 3; n <= MOST_READS; n += 2) if (bits * majorityWrong(rate, n) < MOST_WRONG_BITS) return n;
  return undefined;
}

function summaryOf(n: number, v: Omit<ReadVerdict, 'bytes' | 'summary'>): string {
  if (n === 1) return 'One read proves nothing: read again and compare.';
  if (v.unstableBytes === 0) return `${n} reads, all alike.`;
  const contact = `${v.unstableBytes.toLocaleString('en')} bytes differ between reads, about one bit in ${Math.round(1 / v.bitErrorRate).toLocaleString('en')}: the contact is bad. Clean the pads, reseat the clip, shorten the leads, read slower`;
  if (v.good) return `${contact}. The majority of ${n} reads holds all the same.`;
  return v.readsWanted === undefined
    ? `${contact}. Not good: no number of reads makes up for this contact.`
    : `${contact}. Not good yet: with this contact ${v.readsWanted} reads would do.`;
}

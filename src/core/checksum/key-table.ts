/** Positions by key, in open addressing; equal keys are chained. */
export class KeyTable {
  private readonly heads: Int32Array;
  private readonly next: Int32Array;
  private readonly mask: number;
  /** Bits that are set where any key may be: most keys asked for are turned away by one look. */
  private readonly filter = new Uint8Array(2 ** (32 - FILTER_SHIFT));

  constructor(private readonly keys: Uint32Array) {
    const size = 2 ** Math.ceil(Math.log2(2 * keys.length + 2));
    this.mask = size - 1;
    this.heads = new Int32Array(size).fill(-1);
    this.next = new Int32Array(keys.length).fill(-1);
    for (let k = 0; k < keys.length; k++) {
      const mixed = Math.imul(keys[k], MIX);
      const slot = (mixed >>> 8) & this.mask;
      this.filter[mixed >>> FILTER_SHIFT] |= 1 << ((mixed >>> 8) & 7);
      this.next[k] = this.heads[slot];
      this.heads[slot] = k;
    }
  }

  /** Visits every pair of a position with the place, from `from` on, at which its key is asked for. */
  each(wanted: Uint32Array, from: number, visit: (position: number, place: number) => void): void {
    const { filter, heads, next, keys, mask } = this;
    for (let place = from; place < wanted.length; place++) {
      const key = wanted[place];
      const mixed = Math.imul(key, MIX);
      if (((filter[mixed >>> FILTER_SHIFT] >>> ((mixed >>> 8) & 7)) & 1) === 0) continue;
      for (let k = heads[(mixed >>> 8) & mask]; k >= 0; k = next[k]) if (keys[k] === key) visit(k, place);
    }
  }
}

/** Knuth's multiplicative hash: 2^32 over the golden section, odd. */
const MIX = 0x9e3779b1;
/** The filter has one byte for each value of a mixed key's upper bits. */
const FILTER_SHIFT = 15;

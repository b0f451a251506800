/**
 * A linear map over up to 32 bits of GF(2), as four tables of 256: one for each byte of its input. What a CRC's register
 * does over bytes of zero is such a map, and has an inverse.
 */
export class LinearMap {
  private readonly tables: Uint32Array;

  private constructor(columns: Uint32Array) {
    this.tables = new Uint32Array(4 * 256);
    for (let byte = 0; byte < 4; byte++) {
      for (let value = 0; value < 256; value++) {
        let out = 0;
        for (let bit = 0; bit < 8; bit++) if ((value >>> bit) & 1) out ^= columns[8 * byte + bit] ?? 0;
        this.tables[256 * byte + value] = out;
      }
    }
  }

  /** @param image what becomes of each single bit. */
  static of(width: number, image: (bit: number) => number): LinearMap {
    return new LinearMap(Uint32Array.from({ length: width }, (_, k) => image(2 ** k)));
  }

  apply(v: number): number {
    const t = this.tables;
    return t[v & 255] ^ t[256 + ((v >>> 8) & 255)] ^ t[512 + ((v >>> 16) & 255)] ^ t[768 + (v >>> 24)];
  }

  /** The map done twice. */
  squared(width: number): LinearMap {
    return LinearMap.of(width, (bit) => this.apply(this.apply(bit)));
  }

  /** The map back, by elimination of columns. @throws where there is none. */
  inverse(width: number): LinearMap {
    const [from, to] = [Array.from({ length: width }, (_, k) => 2 ** k), [] as number[]];
    const image = from.map((bit) => this.apply(bit) >>> 0);
    for (let bit = 0; bit < width; bit++) {
      const pivot = image.findIndex((v, k) => k >= bit && (v >>> bit) & 1);
      if (pivot < 0) throw new Error('the map has no inverse');
      [image[bit], image[pivot]] = [image[pivot], image[bit]];
      [from[bit], from[pivot]] = [from[pivot], from[bit]];
      for (let k = 0; k < width; k++) {
        if (k === bit || !((image[k] >>> bit) & 1)) continue;
        image[k] = (image[k] ^ image[bit]) >>> 0;
        from[k] = (from[k] ^ from[bit]) >>> 0;
      }
    }
    for (let bit = 0; bit < width; bit++) to[bit] = from[bit];
    return LinearMap.of(width, (bit) => to[Math.round(Math.log2(bit))]);
  }
}

/** A map to any power, from its powers of two. */
export class Powers {
  private readonly doublings: LinearMap[];

  constructor(
    map: LinearMap,
    private readonly width: number,
  ) {
    this.doublings = [map];
  }

  /** The map, `times` times. */
  apply(value: number, times: number): number {
    let v = value;
    for (let k = 0, rest = times; rest > 0; k++, rest = Math.floor(rest / 2)) {
      if (k === this.doublings.length) this.doublings.push(this.doublings[k - 1].squared(this.width));
      if (rest % 2 === 1) v = this.doublings[k].apply(v);
    }
    return v;
  }

  /** That power as one map. */
  power(times: number): LinearMap {
    return LinearMap.of(this.width, (bit) => this.apply(bit, times));
  }
}

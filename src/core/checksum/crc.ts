/** A CRC by the parameters of the catalogue of parametrised CRC algorithms; in and out are reflected together. */
export interface CrcParameters {
  readonly width: 8 | 16 | 32;
  /** The polynomial without its highest term, most significant bit first. */
  readonly poly: number;
  readonly init: number;
  readonly reflected: boolean;
  readonly xorOut: number;
}

/** A CRC's register as it runs, in the form in which the algorithm holds it: reflected or not. */
export class CrcRegister {
  readonly width: number;
  readonly mask: number;
  readonly init: number;
  readonly xorOut: number;
  private readonly poly: number;
  private readonly reflected: boolean;
  private made?: Uint32Array;

  constructor({ width, poly, init, reflected, xorOut }: CrcParameters) {
    this.width = width;
    this.mask = width === 32 ? 0xffffffff : (1 << width) - 1;
    this.reflected = reflected;
    this.xorOut = xorOut;
    // The initial value of every reflected algorithm here is all ones or all zeros: its own mirror.
    this.init = init;
    this.poly = poly;
  }

  /** Made when it is first needed: most of the catalogue is never asked for. */
  private get table(): Uint32Array {
    const { poly, width } = this;
    return (this.made ??= this.reflected ? reflectedTable(mirrored(poly, width)) : plainTable(poly, width));
  }

  /** The register after some bytes. @param from the register before them. */
  run(bytes: Uint8Array, from: number, start = 0, end = bytes.length): number {
    const { table, width, mask } = this;
    let r = from;
    if (this.reflected) for (let i = start; i < end; i++) r = (r >>> 8) ^ table[(r ^ bytes[i]) & 0xff];
    else if (width === 8) for (let i = start; i < end; i++) r = table[(r ^ bytes[i]) & 0xff];
    else for (let i = start; i < end; i++) r = ((r << 8) & mask) ^ table[((r >>> (width - 8)) ^ bytes[i]) & 0xff];
    return r >>> 0;
  }

  /** The checksum of some bytes. */
  of(bytes: Uint8Array, start = 0, end = bytes.length): number {
    return (this.run(bytes, this.init, start, end) ^ this.xorOut) >>> 0;
  }
}

function reflectedTable(poly: number): Uint32Array {
  return Uint32Array.from({ length: 256 }, (_, i) => {
    let c = i;
    for (let bit = 0; bit < 8; bit++) c = c & 1 ? (c >>> 1) ^ poly : c >>> 1;
    return c;
  });
}

function plainTable(poly: number, width: number): Uint32Array {
  return Uint32Array.from({ length: 256 }, (_, i) => {
    let c = i << (width - 8);
    for (let bit = 0; bit < 8; bit++) c = (c >>> (width - 1)) & 1 ? (c << 1) ^ poly : c << 1;
    return width === 32 ? c : c & ((1 << width) - 1);
  });
}

function mirrored(value: number, width: number): number {
  let out = 0;
  for (let bit = 0; bit < width; bit++) if ((value >>> bit) & 1) out |= 1 << (width - 1 - bit);
  return out >>> 0;
}

import type { CrcRegister } from './crc';
import { LinearMap, Powers } from './linear-map';
import { beyondFill, valueOf, type Place } from './place';
import type { Field, RangeKeys } from './range-keys';

/**
 * A CRC's register after a range is A^(end−start)(init + P(start)) + P(end), with A what a byte of zero does, P the register
 * over all bytes before and + the exclusive or. Pulled back by A^(−end) start and end stand apart.
 */
export class CrcKeys implements RangeKeys {
  readonly bits: 8 | 16 | 32;
  readonly starts: Uint32Array;
  private readonly ends: Uint32Array;
  private readonly back: Powers;
  /** From each end to the next. */
  private readonly steps: readonly LinearMap[];

  constructor(
    private readonly crc: CrcRegister,
    private readonly place: Place,
  ) {
    this.bits = crc.width as 8 | 16 | 32;
    const zero = new Uint8Array(1);
    const forth = LinearMap.of(crc.width, (bit) => crc.run(zero, bit));
    this.back = new Powers(forth.inverse(crc.width), crc.width);
    const pulled = (at: number, register: number): number => this.back.apply(register, at) >>> 0;
    this.starts = this.prefixes(place.starts, (at, p) => pulled(at, (p ^ crc.init) >>> 0));
    this.ends = this.prefixes(place.ends, pulled);
    const maps = new Map<number, LinearMap>();
    this.steps = Array.from(place.ends.subarray(1), (end, k) => {
      const step = end - place.ends[k];
      const map = maps.get(step) ?? this.back.power(step);
      maps.set(step, map);
      return map;
    });
  }

  private prefixes(places: Int32Array, key: (at: number, register: number) => number): Uint32Array {
    const out = new Uint32Array(places.length);
    let [register, at] = [0, 0];
    for (let k = 0; k < places.length; k++) {
      register = this.crc.run(this.place.bytes, register, at, places[k]);
      at = places[k];
      out[k] = key(at, register);
    }
    return out;
  }

  /** The field's value as the register has to be, and what its own bytes add, pulled back. */
  private parts(field: Field): { readonly value: number; readonly inside: number } {
    const { place, back, crc } = this;
    const value = (valueOf(place, field.offset, field.bigEndian) ^ crc.xorOut) >>> 0;
    if (field.fill === 'outside') return { value, inside: 0 };
    return { value, inside: back.apply(crc.run(beyondFill(place, field), 0), field.offset + place.fieldBytes) };
  }

  wantedAt(end: number, field: Field): number {
    const { value, inside } = this.parts(field);
    return (this.ends[end] ^ this.back.apply(value, this.place.ends[end]) ^ inside) >>> 0;
  }

  wanted(field: Field, out: Uint32Array): void {
    const { ends, steps } = this;
    const { value, inside } = this.parts(field);
    let pulled = this.back.apply(value, this.place.ends[0]) ^ inside;
    // What the field's bytes add does not move with the end: it is taken out before each step and put back after it.
    out[0] = ends[0] ^ pulled;
    for (let k = 1; k < out.length; k++) {
      pulled = steps[k - 1].apply(pulled ^ inside) ^ inside;
      out[k] = ends[k] ^ pulled;
    }
  }
}

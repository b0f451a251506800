import { readField, type Checksum } from './catalogue';
import type { CrcRegister } from './crc';
import { LinearMap, Powers } from './linear-map';
import { PLACES, type DoubleSumParameters, type SumParameters } from './sums';

/** A field that may hold a checksum, as it is in one image. */
export interface Field {
  readonly offset: number;
  readonly bigEndian: boolean;
  /** Where the field lies inside its range: what it is taken for while summing. `outside` where it does not. */
  readonly fill: Fill;
}
export type Fill = 'outside' | '00' | 'ff';

/**
 * A checksum over all ranges of one image at once. Its arithmetic is pulled apart so that a range holds exactly where a
 * number that belongs to its start equals a number that belongs to its end and its field: all ranges are then found by
 * looking up the second among the first, instead of being summed one by one.
 */
export interface RangeKeys {
  /** Bits of a key. */
  readonly bits: 8 | 16 | 32;
  /** Keys of the range starts. */
  readonly starts: Uint32Array;
  /** The start key under which a field holds, for one end. */
  wantedAt(end: number, field: Field): number;
  /** The same for every end. */
  wanted(field: Field, out: Uint32Array): void;
  /** Where equal keys do not settle it: whether a range holds. @param start, end positions in the lists. */
  holds?(start: number, end: number, field: Field): boolean;
}

/** @param starts, ends offsets, ascending; prefix sums are taken at them. */
export function rangeKeys(checksum: Checksum, bytes: Uint8Array, starts: Int32Array, ends: Int32Array): RangeKeys {
  const place = { bytes, starts, ends, fieldBytes: checksum.bytes };
  switch (checksum.kind) {
    case 'crc':
      return new CrcKeys(checksum.crc, place);
    case 'sum':
      return new SumKeys(checksum.sum, place);
    case 'double':
      return new DoubleSumKeys(checksum.double, place);
    case 'xor':
      return new XorKeys(place);
  }
}

interface Place {
  readonly bytes: Uint8Array;
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  readonly fieldBytes: number;
}

const valueOf = ({ bytes, fieldBytes }: Place, offset: number, bigEndian: boolean): number =>
  offset + fieldBytes <= bytes.length ? readField(bytes, offset, fieldBytes, bigEndian) : 0;

/** What the bytes of a field are beyond what they are taken for. */
function beyondFill({ bytes, fieldBytes }: Place, { offset, fill }: Field): Uint8Array {
  const taken = fill === 'ff' ? 0xff : 0;
  return Uint8Array.from({ length: fieldBytes }, (_, k) => bytes[offset + k] ^ taken);
}

/**
 * A CRC's register after a range is A^(end−start)(init + P(start)) + P(end), with A what a byte of zero does, P the register
 * over all bytes before and + the exclusive or. Pulled back by A^(−end) start and end stand apart.
 */
class CrcKeys implements RangeKeys {
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

/** A sum over a range is the difference of two sums from the beginning. Words are counted from the beginning of the image. */
class SumKeys implements RangeKeys {
  readonly bits: 8 | 16 | 32;
  readonly starts: Uint32Array;
  private readonly ends: Uint32Array;
  private readonly size: number;

  constructor(
    private readonly sum: SumParameters,
    private readonly place: Place,
  ) {
    this.bits = sum.width;
    this.size = 2 ** sum.width;
    this.starts = this.prefixes(place.starts);
    this.ends = this.prefixes(place.ends);
  }

  private prefixes(places: Int32Array): Uint32Array {
    const { bytes } = this.place;
    const words = this.sum.wordBytes - 1;
    const out = new Uint32Array(places.length);
    let [total, at] = [0, 0];
    for (let k = 0; k < places.length; k++) {
      for (; at < places[k]; at++) total = (total + bytes[at] * PLACES[at & words]) % 2 ** 32;
      out[k] = total % this.size;
    }
    return out;
  }

  private kept(value: number): number {
    const rest = value % this.size;
    return rest < 0 ? rest + this.size : rest;
  }

  private signed(value: number): number {
    return this.sum.toZero ? -value : value;
  }

  /** The field's value and what its own bytes add beyond what they are taken for. */
  private beyond(field: Field): number {
    const { place, sum } = this;
    let beyond = this.signed(valueOf(place, field.offset, field.bigEndian));
    if (field.fill === 'outside') return beyond;
    for (let k = 0; k < place.fieldBytes; k++) {
      const at = field.offset + k;
      beyond += (place.bytes[at] - (field.fill === 'ff' ? 0xff : 0)) * PLACES[at & (sum.wordBytes - 1)];
    }
    return beyond;
  }

  wantedAt(end: number, field: Field): number {
    return this.kept(this.ends[end] - this.beyond(field));
  }

  wanted(field: Field, out: Uint32Array): void {
    const beyond = this.kept(this.beyond(field));
    const last = this.size - 1;
    for (let k = 0; k < out.length; k++) out[k] = (this.ends[k] - beyond) & last;
  }
}

/** All bytes, each exclusive or with the rest. */
class XorKeys implements RangeKeys {
  readonly bits = 8;
  readonly starts: Uint32Array;
  private readonly ends: Uint32Array;

  constructor(private readonly place: Place) {
    this.starts = this.prefixes(place.starts);
    this.ends = this.prefixes(place.ends);
  }

  private prefixes(places: Int32Array): Uint32Array {
    let [x, at] = [0, 0];
    return Uint32Array.from(places, (place) => {
      for (; at < place; at++) x ^= this.place.bytes[at];
      return x;
    });
  }

  wantedAt(end: number, field: Field): number {
    const inside = field.fill === 'outside' ? 0 : beyondFill(this.place, field)[0];
    return this.ends[end] ^ valueOf(this.place, field.offset, false) ^ inside;
  }

  wanted(field: Field, out: Uint32Array): void {
    const same = this.wantedAt(0, field) ^ this.ends[0];
    for (let k = 0; k < out.length; k++) out[k] = this.ends[k] ^ same;
  }
}

/**
 * The first of two running sums is a plain sum and gives the key; the second, Σ (terms to the end) · word, is checked where
 * the first agrees: with n terms, S the sum of words and W the sum of words times their number from the beginning,
 * b = n·first + e·(S(e) − S(s)) − (W(e) − W(s)), e the number of words before the end.
 */
class DoubleSumKeys implements RangeKeys {
  readonly bits: 8 | 16;
  readonly starts: Uint32Array;
  private readonly at: { readonly starts: Sums; readonly ends: Sums };

  constructor(
    private readonly double: DoubleSumParameters,
    private readonly place: Place,
  ) {
    this.bits = double.half;
    this.at = { starts: this.prefixes(place.starts), ends: this.prefixes(place.ends) };
    this.starts = this.at.starts.plain;
  }

  private prefixes(places: Int32Array): Sums {
    const { bytes } = this.place;
    const { modulus, wordBytes } = this.double;
    const out = { plain: new Uint32Array(places.length), weighed: new Uint32Array(places.length) };
    let [plain, weighed, at] = [0, 0, 0];
    for (let k = 0; k < places.length; k++) {
      for (; at < places[k]; at += wordBytes) {
        const word = bytes[at] + (wordBytes === 2 ? 256 * (bytes[at + 1] ?? 0) : 0);
        plain = (plain + word) % modulus;
        weighed = (weighed + (((at / wordBytes) | 0) % modulus) * word) % modulus;
      }
      out.plain[k] = plain;
      out.weighed[k] = weighed;
    }
    return out;
  }

  private kept(value: number): number {
    const rest = value % this.double.modulus;
    return rest < 0 ? rest + this.double.modulus : rest;
  }

  private halves(value: number): { a: number; b: number } {
    const size = 2 ** this.double.half;
    return { a: value % size, b: Math.floor(value / size) };
  }

  /** First sums that no field could hold are asked for as a key that none has. */
  wantedAt(end: number, field: Field): number {
    const { a } = this.halves(valueOf(this.place, field.offset, field.bigEndian));
    if (a >= this.double.modulus) return NO_KEY;
    return this.kept(this.at.ends.plain[end] - this.inside(field).plain - a + this.double.first);
  }

  wanted(field: Field, out: Uint32Array): void {
    const { modulus } = this.double;
    const first = this.wantedAt(0, field);
    if (first === NO_KEY) return void out.fill(NO_KEY);
    const { plain } = this.at.ends;
    const shift = this.kept(first - plain[0]);
    for (let k = 0; k < out.length; k++) {
      const sum = plain[k] + shift;
      out[k] = sum >= modulus ? sum - modulus : sum;
    }
  }

  /** What the field's own bytes add to the plain and the weighed sum beyond what they are taken for. */
  private inside(field: Field): { plain: number; weighed: number } {
    const { wordBytes } = this.double;
    let [plain, weighed] = [0, 0];
    if (field.fill === 'outside') return { plain, weighed };
    for (let k = 0; k < this.place.fieldBytes; k++) {
      const at = field.offset + k;
      const beyond = (this.place.bytes[at] - (field.fill === 'ff' ? 0xff : 0)) * (at % wordBytes === 1 ? 256 : 1);
      plain += beyond;
      weighed += Math.floor(at / wordBytes) * beyond;
    }
    return { plain, weighed };
  }

  holds(start: number, end: number, field: Field): boolean {
    const { place, at, double } = this;
    const { a, b } = this.halves(valueOf(place, field.offset, field.bigEndian));
    const inside = this.inside(field);
    const before = Math.ceil(place.ends[end] / double.wordBytes);
    const terms = before - place.starts[start] / double.wordBytes;
    const plain = this.kept(at.ends.plain[end] - at.starts.plain[start] - inside.plain);
    const weighed = this.kept(at.ends.weighed[end] - at.starts.weighed[start] - inside.weighed);
    const m = double.modulus;
    return (
      this.kept(plain + double.first) === a &&
      this.kept((terms % m) * double.first + (before % m) * plain - weighed) === b
    );
  }
}

interface Sums {
  readonly plain: Uint32Array;
  readonly weighed: Uint32Array;
}

/** Above every key of a double sum. */
const NO_KEY = 0xffffffff;

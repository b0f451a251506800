import { valueOf, type Place } from './place';
import type { Field, RangeKeys } from './range-keys';
import type { DoubleSumParameters } from './sums';

/**
 * The first of two running sums is a plain sum and gives the key; the second, Σ (terms to the end) · word, is checked where
 * the first agrees: with n terms, S the sum of words and W the sum of words times their number from the beginning,
 * b = n·first + e·(S(e) − S(s)) − (W(e) − W(s)), e the number of words before the end.
 */
export class DoubleSumKeys implements RangeKeys {
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

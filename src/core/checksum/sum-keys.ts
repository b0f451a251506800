import { beyondFill, valueOf, type Place } from './place';
import type { Field, RangeKeys } from './range-keys';
import { PLACES, type SumParameters } from './sums';

/** A sum over a range is the difference of two sums from the beginning. Words are counted from the beginning of the image. */
export class SumKeys implements RangeKeys {
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
export class XorKeys implements RangeKeys {
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

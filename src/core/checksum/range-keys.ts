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

/** Sums over bytes or little-endian words, kept to the width of their field. */
export interface SumParameters {
  readonly width: 8 | 16 | 32;
  /** Bytes of one term. */
  readonly wordBytes: 1 | 2 | 4;
  /** The field holds what brings the sum to zero, not the sum. */
  readonly toZero: boolean;
}

/** Worth of each byte of a word. Sums of 64 MiB of words stay exact: below 2^53. */
export const PLACES = [1, 2 ** 8, 2 ** 16, 2 ** 24];

/** The sum of a range; a last word that is cut off counts with what is there. */
export function sumOf(
  { width, wordBytes, toZero }: SumParameters,
  bytes: Uint8Array,
  start = 0,
  end = bytes.length,
): number {
  let sum = 0;
  for (let i = start, k = 0; i < end; i++, k = (k + 1) & (wordBytes - 1)) sum += bytes[i] * PLACES[k];
  const kept = sum % 2 ** width;
  return toZero ? (2 ** width - kept) % 2 ** width : kept;
}

/** Two running sums, the second over the first: Fletcher's and Adler's. */
export interface DoubleSumParameters {
  /** Each sum is kept below this. */
  readonly modulus: number;
  /** Where the first sum begins. */
  readonly first: 0 | 1;
  /** Bits of each of the two sums in the field, the second in the upper half. */
  readonly half: 8 | 16;
  readonly wordBytes: 1 | 2;
}

/** The checksum of a range: second sum in the upper half. Sources: RFC 1950, 8.2 (Adler); RFC 1146, appendix I (Fletcher). */
export function doubleSumOf(
  { modulus, first, half, wordBytes }: DoubleSumParameters,
  bytes: Uint8Array,
  start = 0,
  end = bytes.length,
): number {
  let [a, b] = [first as number, 0];
  for (let i = start; i < end; i += wordBytes) {
    a = (a + bytes[i] + (wordBytes === 2 && i + 1 < end ? 256 * bytes[i + 1] : 0)) % modulus;
    b = (b + a) % modulus;
  }
  return b * 2 ** half + a;
}

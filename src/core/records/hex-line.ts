import { fail, failAll, ok, type Problem, type Result } from '../result';
import { formatHex } from '../units';

const DIGIT = new Int8Array(128).fill(-1);
'0123456789'.split('').forEach((c, k) => (DIGIT[c.charCodeAt(0)] = k));
'abcdef'.split('').forEach((c, k) => (DIGIT[c.charCodeAt(0)] = DIGIT[c.toUpperCase().charCodeAt(0)] = 10 + k));

/**
 * Bytes of many lines in one piece of memory. A piece for each line is what reading half a million lines took most of its time for:
 * the collector had to free them one by one.
 */
export class ByteStore {
  private readonly bytes: Uint8Array;
  private used = 0;

  constructor(mostBytes: number) {
    this.bytes = new Uint8Array(mostBytes);
  }

  /** Room for so many bytes, which nobody else has. */
  take(count: number): Uint8Array {
    return this.bytes.subarray(this.used, (this.used += count));
  }
}

/** The bytes that pairs of digits stand for. @param store where they are put; a piece of their own without it. */
export function hexBytes(text: string, from: number, store?: ByteStore): Result<Uint8Array> {
  const digits = text.length - from;
  const bytes = store ? store.take(digits >> 1) : new Uint8Array(digits >> 1);
  for (let k = from, n = 0; k < text.length; k++) {
    const code = text.charCodeAt(k);
    const digit = code > 127 ? -1 : DIGIT[code];
    if (digit < 0) return fail(`Expected hexadecimal digits; got “${text[k]}” as character ${k + 1}.`);
    if (((k - from) & 1) === 0) bytes[n] = 16 * digit;
    else bytes[n++] += digit;
  }
  if (digits % 2 === 1) return fail(`Expected pairs of digits; got ${digits} digits.`);
  return ok(bytes);
}

/** The problems of a line with where it stands; a field of it behind that. Made only where there are any: a file has half a million lines. */
export const inLine = (problems: readonly Problem[], number: number): Result<never> =>
  failAll(problems.map(({ message, at }) => ({ message, at: `line ${number}${at ? `, ${at}` : ''}` })));

const PAIRS = Array.from({ length: 256 }, (_, k) => formatHex(k, 2));

/** Bytes as pairs of capital digits. */
export function hexText(bytes: ArrayLike<number>): string {
  let text = '';
  for (let k = 0; k < bytes.length; k++) text += PAIRS[bytes[k]];
  return text;
}

/** The sum of the first bytes; of all where no count is given. */
export const sumOfBytes = (bytes: ArrayLike<number>, count = bytes.length): number => {
  let sum = 0;
  for (let k = 0; k < count; k++) sum += bytes[k];
  return sum;
};

/** A number of so many bytes, the highest first. */
export const bigEndian = (value: number, width: number): number[] =>
  Array.from({ length: width }, (_, k) => Math.floor(value / 256 ** (width - 1 - k)) % 256);

export const numberOf = (bytes: ArrayLike<number>, from: number, width: number): number => {
  let value = 0;
  for (let k = 0; k < width; k++) value = 256 * value + bytes[from + k];
  return value;
};

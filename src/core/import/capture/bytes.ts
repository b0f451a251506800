/** Bytes as text, for a header or a message. */
export const ascii = (all: Uint8Array, start: number, stop: number): string =>
  String.fromCharCode(...all.subarray(start, stop));

/** The beginning of a row, for messages. */
export const rowText = (all: Uint8Array, start: number, stop: number): string =>
  ascii(all, start, Math.min(stop, start + 60));

const MINUS = 45;
const PLUS = 43;
const POINT = 46;
const COMMA = 44;

/** A decimal number from bytes, without making a text of it; an exponent goes the slow way. NaN when it is none. */
export function decimal(all: Uint8Array, start: number, stop: number): number {
  let value = 0;
  let scale = 0;
  let at = start;
  const negative = all[at] === MINUS;
  if (negative || all[at] === PLUS) at++;
  if (at >= stop) return NaN;
  for (; at < stop; at++) {
    const c = all[at];
    if (c >= 48 && c <= 57) {
      value = value * 10 + (c - 48);
      scale *= 10;
    } else if ((c === POINT || c === COMMA) && scale === 0) scale = 1;
    else {
      const text = rowText(all, start, stop).trim().replace(',', '.');
      return text === '' ? NaN : Number(text);
    }
  }
  return (negative ? -value : value) / (scale || 1);
}

export function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  if (a.length === 0) return b;
  const all = new Uint8Array(a.length + b.length);
  all.set(a);
  all.set(b, a.length);
  return all;
}

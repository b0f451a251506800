/**
 * Fields of a message's data as its specification draws them: bit by bit, bit 0 the lowest of the first byte. A layout reads and
 * writes; what it does not name is reserved, written as 0 and not read.
 */
export type FieldValue = number | boolean | string | null;
export type Fields = Readonly<Record<string, FieldValue>>;

interface Place {
  readonly name: string;
  /** Lowest bit. */
  readonly at: number;
}

export type FieldLayout =
  | (Place & {
      readonly kind: 'number';
      readonly bits: number;
      /** The unit's worth of one step; the name carries the unit. */
      readonly step?: number;
      /** The raw value that says "not known" or "not supported": read as null. */
      readonly unknown?: number;
    })
  | (Place & { readonly kind: 'flag' })
  | (Place & { readonly kind: 'choice'; readonly bits: number; readonly choices: readonly string[] });

export interface Layout {
  readonly bytes: number;
  readonly fields: readonly FieldLayout[];
}

/** A number in steps of its unit. */
export const figure = (name: string, high: number, low: number, step = 1, unknown?: number): FieldLayout => ({
  kind: 'number',
  name,
  at: low,
  bits: high - low + 1,
  step,
  ...(unknown !== undefined && { unknown }),
});
export const mark = (name: string, at: number): FieldLayout => ({ kind: 'flag', name, at });
/** One of several by its number; numbers beyond the list are reserved and told as such. */
export const oneOf = (name: string, high: number, low: number, choices: readonly string[]): FieldLayout => ({
  kind: 'choice',
  name,
  at: low,
  bits: high - low + 1,
  choices,
});

function readBits(bytes: Uint8Array, at: number, bits: number): number {
  let value = 0;
  for (let k = bits - 1; k >= 0; k--) value = value * 2 + ((bytes[(at + k) >> 3] >> ((at + k) & 7)) & 1);
  return value;
}

function writeBits(bytes: Uint8Array, at: number, bits: number, value: number): void {
  let rest = value;
  for (let k = 0; k < bits; k++) {
    if (rest % 2 === 1) bytes[(at + k) >> 3] |= 1 << ((at + k) & 7);
    rest = Math.floor(rest / 2);
  }
}

const RESERVED = /^reserved (\d+)$/;

/** Every field by name; what a shorter block does not hold is left out. */
export function readFields({ fields }: Layout, bytes: Uint8Array): Fields {
  const found: Record<string, FieldValue> = {};
  for (const f of fields) {
    const bits = f.kind === 'flag' ? 1 : f.bits;
    if (f.at + bits > 8 * bytes.length) continue;
    const raw = readBits(bytes, f.at, bits);
    if (f.kind === 'flag') found[f.name] = raw === 1;
    else if (f.kind === 'choice') found[f.name] = f.choices[raw] || `reserved ${raw}`;
    else found[f.name] = raw === f.unknown ? null : raw * (f.step ?? 1);
  }
  return found;
}

/** The bytes of a block; figures between steps are rounded, fields that are not given are 0. @throws RangeError for a choice that is none. */
export function writeFields({ bytes: size, fields }: Layout, values: Fields): Uint8Array {
  const bytes = new Uint8Array(size);
  for (const f of fields) {
    const value = values[f.name];
    if (value === undefined) continue;
    if (f.kind === 'flag') writeBits(bytes, f.at, 1, value === true ? 1 : 0);
    else if (f.kind === 'choice') writeBits(bytes, f.at, f.bits, choiceOf(f, String(value)));
    else if (value === null) writeBits(bytes, f.at, f.bits, f.unknown ?? 0);
    else writeBits(bytes, f.at, f.bits, Math.round(Number(value) / (f.step ?? 1)));
  }
  return bytes;
}

function choiceOf({ name, choices }: Extract<FieldLayout, { kind: 'choice' }>, value: string): number {
  const at = choices.indexOf(value);
  if (at >= 0 && value !== '') return at;
  const reserved = RESERVED.exec(value);
  if (!reserved)
    throw new RangeError(`expected one of ${choices.filter(Boolean).join(', ')} for ${name}; got ${value}`);
  return Number(reserved[1]);
}

import { seededRandom, type Random } from '../math';
import { CHECKSUMS, readField, writeField, type Checksum } from '.';
import { rangeKeys } from './make-keys';
import type { Field, Fill } from './range-keys';

const SIZE = 640;
const EDGES = Int32Array.from({ length: SIZE / 32 + 1 }, (_, k) => 32 * k);
const noise = (random: Random): Uint8Array => Uint8Array.from({ length: SIZE }, () => 256 * random());
const upTo = (random: Random, n: number): number => Math.floor(n * random());

/** The slow twin: the range summed directly, its field taken for what the fill says. */
function holdsDirectly(checksum: Checksum, bytes: Uint8Array, from: number, to: number, field: Field): boolean {
  const range = bytes.slice(from, to);
  if (field.fill !== 'outside')
    range.fill(field.fill === 'ff' ? 0xff : 0, field.offset - from, field.offset - from + checksum.bytes);
  return checksum.of(range) === readField(bytes, field.offset, checksum.bytes, field.bigEndian);
}

/** A range, and a field before it, after it or inside it. */
function drawCase(checksum: Checksum, random: Random): { start: number; end: number; field: Field } {
  const start = 2 + upTo(random, 8);
  const end = start + 1 + upTo(random, EDGES.length - start - 3);
  const words = (from: number, to: number): number =>
    from + checksum.bytes * upTo(random, (to - from) / checksum.bytes);
  const fill = (['outside', '00', 'ff'] as Fill[])[upTo(random, 3)];
  const outside = random() < 0.5 ? words(0, EDGES[start]) : words(EDGES[end], SIZE);
  const offset = fill === 'outside' ? outside : words(EDGES[start], EDGES[end]);
  return { start, end, field: { offset, bigEndian: random() < 0.5, fill } };
}

describe.each(CHECKSUMS.map((c) => [c.name, c] as const))('%s', (name, checksum) => {
  const keysOf = (bytes: Uint8Array) => rangeKeys(checksum, bytes, EDGES, EDGES);

  test('a range that was given its checksum holds by its keys, and no longer once the range is touched', () => {
    const random = seededRandom(name.length);
    for (let k = 0; k < 60; k++) {
      const bytes = noise(random);
      const { start, end, field } = drawCase(checksum, random);
      const [from, to] = [EDGES[start], EDGES[end]];
      const taken = bytes.slice(from, to);
      if (field.fill !== 'outside')
        taken.fill(field.fill === 'ff' ? 0xff : 0, field.offset - from, field.offset - from + checksum.bytes);
      writeField(bytes, field.offset, checksum.bytes, field.bigEndian, checksum.of(taken));
      expect(holdsDirectly(checksum, bytes, from, to, field)).toBe(true);
      const keys = keysOf(bytes);
      expect(keys.starts[start]).toBe(keys.wantedAt(end, field));
      expect(keys.holds?.(start, end, field) ?? true).toBe(true);
      // One byte of the range that is not of its field.
      const touched = field.offset === from ? to - 1 : from;
      bytes[touched] ^= 0x10;
      const after = keysOf(bytes);
      const still = after.starts[start] === after.wantedAt(end, field) && (after.holds?.(start, end, field) ?? true);
      expect(still).toBe(holdsDirectly(checksum, bytes, from, to, field));
    }
  });

  test('all ends at once give what each end gives alone', () => {
    const random = seededRandom(name.length + 50);
    const bytes = noise(random);
    const keys = keysOf(bytes);
    const all = new Uint32Array(EDGES.length);
    for (const fill of ['outside', '00', 'ff'] as const) {
      const field = { offset: 4 * upTo(random, 100), bigEndian: random() < 0.5, fill };
      keys.wanted(field, all);
      expect([...all]).toEqual([...EDGES.keys()].map((end) => keys.wantedAt(end, field) >>> 0));
    }
  });
});

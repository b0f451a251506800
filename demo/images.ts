import { writeField } from '../src/core/checksum';
import { computedSum, type ImageFamily, type Region } from '../src/core/image';
import { seededRandom, type Random } from '../src/core/math';

/** What makes one demo image differ from the next of its family. */
export interface ImageWish {
  /** Version of the code: the same number gives the same code. */
  readonly code: number;
  /** The unit it belongs to: identity, calibration and journal follow from it. */
  readonly unit: number;
  readonly position: number;
  /** Bytes of code that are damaged after the checksums were made. */
  readonly damagedBytes?: number;
}

/** Builds an invented configuration image: deterministic, and sound unless damage is asked for. */
export function demoImage(family: ImageFamily, wish: ImageWish): Uint8Array {
  const bytes = new Uint8Array(family.sizeBytes).fill(0xff);
  for (const region of family.regions) fillRegion(bytes, region, wish);
  family.magicHex.match(/../g)!.forEach((pair, i) => (bytes[i] = parseInt(pair, 16)));
  if (family.positionOffset !== undefined) bytes[family.positionOffset] = wish.position;
  for (const field of family.fields ?? [])
    writeField(bytes, field.offset, field.bytes, field.bigEndian ?? false, FIELD_VALUE);
  copyRegions(bytes, family);
  for (const region of family.regions)
    if (region.covers)
      writeField(bytes, region.offset, region.length, region.bigEndian ?? false, computedSum(region, bytes));
  damage(family, bytes, wish);
  return bytes;
}

/** What the demo's settings carry in their fields: a charge limit of 3 A, in mA. */
const FIELD_VALUE = 3000;
const JOURNAL_ENTRY_BYTES = 16;

function fillRegion(bytes: Uint8Array, region: Region, wish: ImageWish): void {
  const { meaning, offset, length, copyOf } = region;
  if (meaning === 'checksum' || meaning === 'padding' || copyOf !== undefined) return;
  if (meaning === 'journal') return fillJournal(bytes, region, wish);
  const seeds = { code: wish.code, settings: 7, identity: wish.unit, calibration: wish.unit + 500 } as const;
  const random = seededRandom(seeds[meaning] * 7919 + offset);
  const used = meaning === 'code' ? Math.floor(length * 0.86) : Math.min(length, 96);
  for (let i = 0; i < used; i++) bytes[offset + i] = codeByte(random, i);
}

/** Machine code is not noise: half of the bytes come from a small set, as real programs have it. */
function codeByte(random: Random, i: number): number {
  const common = [0x00, 0x20, 0x46, 0x47, 0x68, 0x70, 0xb5, 0xbd, 0xf0, 0xd1];
  return i % 2 === 1 && random() < 0.8 ? common[Math.floor(random() * common.length)] : Math.floor(random() * 256);
}

/** Entries one after the other: a number that counts up, what happened, and figures; erased where none is yet. */
function fillJournal(bytes: Uint8Array, { offset, length }: Region, { unit }: ImageWish): void {
  const random = seededRandom(unit * 613 + offset);
  const entries = Math.floor((0.2 + 0.5 * random()) * (length / JOURNAL_ENTRY_BYTES));
  for (let k = 0; k < entries; k++) {
    const at = offset + k * JOURNAL_ENTRY_BYTES;
    bytes.set([k & 0xff, k >> 8, 1 + Math.floor(6 * random()), 0], at);
    for (let i = 4; i < JOURNAL_ENTRY_BYTES; i++) bytes[at + i] = i < 10 ? Math.floor(256 * random()) : 0;
  }
}

function copyRegions(bytes: Uint8Array, { regions }: ImageFamily): void {
  for (const { copyOf, offset } of regions) {
    const first = regions.find((r) => r.name === copyOf);
    if (first) bytes.copyWithin(offset, first.offset, first.offset + first.length);
  }
}

function damage(family: ImageFamily, bytes: Uint8Array, wish: ImageWish): void {
  const code = family.regions.find((r) => r.name === 'code')!;
  const random = seededRandom(wish.unit * 31 + 5);
  const start = code.offset + Math.floor(code.length * 0.4);
  for (let i = 0; i < (wish.damagedBytes ?? 0); i++) bytes[start + i] = Math.floor(random() * 256);
}

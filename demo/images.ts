import { crc32, type ImageFamily, type Region } from '../src/core/image';
import { seededRandom, type Random } from '../src/core/math';

/** What makes one demo image differ from the next of its family. */
export interface ImageWish {
  /** Version of the code: the same number gives the same code. */
  readonly code: number;
  /** The unit it belongs to: identity and calibration follow from it. */
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
  writeChecksums(family, bytes);
  damage(family, bytes, wish);
  return bytes;
}

function fillRegion(bytes: Uint8Array, region: Region, wish: ImageWish): void {
  const seeds = { code: wish.code, settings: 7, identity: wish.unit, calibration: wish.unit + 500 } as const;
  if (region.meaning === 'checksum' || region.meaning === 'padding') return;
  const random = seededRandom(seeds[region.meaning] * 7919 + region.offset);
  const used = region.meaning === 'code' ? Math.floor(region.length * 0.86) : Math.min(region.length, 96);
  for (let i = 0; i < used; i++) bytes[region.offset + i] = codeByte(random, i);
}

/** Machine code is not noise: half of the bytes come from a small set, as real programs have it. */
function codeByte(random: Random, i: number): number {
  const common = [0x00, 0x20, 0x46, 0x47, 0x68, 0x70, 0xb5, 0xbd, 0xf0, 0xd1];
  return i % 2 === 1 && random() < 0.8 ? common[Math.floor(random() * common.length)] : Math.floor(random() * 256);
}

function writeChecksums(family: ImageFamily, bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer);
  for (const { covers, offset } of family.regions) {
    if (covers) view.setUint32(offset, crc32(bytes.subarray(covers.offset, covers.offset + covers.length)), true);
  }
}

function damage(family: ImageFamily, bytes: Uint8Array, wish: ImageWish): void {
  const code = family.regions.find((r) => r.name === 'code')!;
  const random = seededRandom(wish.unit * 31 + 5);
  const start = code.offset + Math.floor(code.length * 0.4);
  for (let i = 0; i < (wish.damagedBytes ?? 0); i++) bytes[start + i] = Math.floor(random() * 256);
}

import { readField } from '../checksum';
import { formatBytes, formatHex } from '../units';
import { checksumOf, type ImageFamily, type Region } from './family';

export interface ChecksumVerdict {
  readonly region: string;
  readonly bytes: number;
  readonly stored: number;
  readonly computed: number;
  readonly holds: boolean;
}

export interface ImageVerdict {
  /** What is wrong, one sentence each; empty when the image is sound. */
  readonly troubles: readonly string[];
  readonly checksums: readonly ChecksumVerdict[];
  /** The port position that the settings carry. */
  readonly position?: number;
  readonly sound: boolean;
}

/** Judges one image against its family: size, blank, magic, checksums, position. */
export function judgeImage(family: ImageFamily, bytes: Uint8Array): ImageVerdict {
  if (bytes.length !== family.sizeBytes) {
    return {
      troubles: [
        `Expected ${formatBytes(family.sizeBytes)} for ${family.name}; got ${bytes.length.toLocaleString('en')} bytes.`,
      ],
      checksums: [],
      sound: false,
    };
  }
  const troubles: string[] = [];
  if (bytes.every((b) => b === 0xff)) troubles.push('It is blank: every byte is FF.');
  else if (bytes.every((b) => b === 0)) troubles.push('It is all zero: look at the contact of the data line.');
  else if (!startsWith(bytes, family.magicHex))
    troubles.push(
      `Expected it to start with ${family.magicHex.toUpperCase()}; got ${hex(bytes.subarray(0, family.magicHex.length / 2))}: another family, or a shifted read.`,
    );
  const checksums = troubles.length > 0 ? [] : checkSums(family, bytes);
  for (const c of checksums)
    if (!c.holds)
      troubles.push(`${c.region} does not hold: stored ${sumHex(c.stored, c)}, computed ${sumHex(c.computed, c)}.`);
  return {
    troubles,
    checksums,
    position: family.positionOffset === undefined ? undefined : bytes[family.positionOffset],
    sound: troubles.length === 0,
  };
}

export function checkSums(family: ImageFamily, bytes: Uint8Array): ChecksumVerdict[] {
  return checksumRegions(family).map((region) => {
    const stored = readField(bytes, region.offset, region.length, region.bigEndian ?? false);
    const computed = computedSum(region, bytes);
    return { region: region.name, bytes: region.length, stored, computed, holds: stored === computed };
  });
}

/** What a checksum region should hold. */
export function computedSum(region: Region, bytes: Uint8Array): number {
  const { offset, length } = region.covers!;
  return checksumOf(region)!.of(bytes, offset, offset + length);
}

export const checksumRegions = (family: ImageFamily): Region[] =>
  family.regions.filter((r) => r.meaning === 'checksum');

function startsWith(bytes: Uint8Array, magicHex: string): boolean {
  return hex(bytes.subarray(0, magicHex.length / 2)).toLowerCase() === magicHex;
}

export const hex = (bytes: Uint8Array): string => Array.from(bytes, (b) => formatHex(b, 2)).join('');
/** A checksum in the digits of its field. */
export const sumHex = (value: number, { bytes }: ChecksumVerdict): string => formatHex(value, 2 * bytes);

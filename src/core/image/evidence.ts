import { formatOffset } from '../units';
import { checksumOf, type ImageFamily, type Region } from './family';
import { checkSums, checksumRegions } from './judge';

/** What a dump looks like, with what it is seen by. */
export interface ImageAnomaly {
  readonly kind: 'blank' | 'zero' | 'aliased' | 'truncated' | 'shifted' | 'flipped' | 'otherFamily' | 'otherPosition';
  readonly words: string;
}

/** Bytes over which a dump is compared with itself and with its family's beginning. */
const MOST_SHIFT = 64;
/** A tail of so many FF where the family keeps something. Engineering estimate. */
const LEAST_TAIL = 1024;
/** A single wrong bit is looked for in ranges up to this: each bit of a longer one would take seconds. */
const MOST_FLIP_BYTES = 262_144;

/**
 * Tells what happened to a dump that is not as it should be: nothing in it, an address line held, cut off, read from the
 * wrong place, one bit wrong, of another family, or sound but for another position.
 * @param families all that are known. @param position the position that the board's slot needs.
 */
export function signsOf(
  family: ImageFamily,
  families: readonly ImageFamily[],
  bytes: Uint8Array,
  position?: number,
): ImageAnomaly[] {
  if (bytes.every((b) => b === 0xff))
    return [{ kind: 'blank', words: 'Blank: every byte is FF. The chip is erased, or nothing answered.' }];
  if (bytes.every((b) => b === 0))
    return [{ kind: 'zero', words: 'All zero: the data line is held low, or has no contact.' }];
  const begins = beginsWith(bytes, family, 0);
  return [
    aliased(bytes),
    bytes.length < family.sizeBytes && begins && cutOff(bytes.length, family),
    bytes.length === family.sizeBytes && begins && emptyTail(bytes, family),
    !begins && shifted(bytes, family),
    !begins && otherFamily(bytes, family, families),
    bytes.length === family.sizeBytes && begins && flipped(bytes, family),
    begins && otherPosition(bytes, family, position),
  ].filter((sign) => sign !== false && sign !== undefined);
}

const magicOf = ({ magicHex }: ImageFamily): number[] => magicHex.match(/../g)!.map((pair) => parseInt(pair, 16));

const beginsWith = (bytes: Uint8Array, family: ImageFamily, at: number): boolean =>
  magicOf(family).every((b, k) => bytes[at + k] === b);

/** The content repeats after half, a quarter or so of its length, and is more than one byte over and over. */
function aliased(bytes: Uint8Array): ImageAnomaly | undefined {
  let period: number | undefined;
  for (let p = bytes.length / 2; p >= 256 && Number.isInteger(p); p /= 2) {
    if (!bytes.subarray(p).every((b, i) => b === bytes[i])) break;
    period = p;
  }
  if (period !== undefined) {
    return {
      kind: 'aliased',
      words: `The content repeats every ${period.toLocaleString('en')} bytes: an address line from bit ${Math.log2(period)} on is held, or the chip is smaller than what was read.`,
    };
  }
  const held = heldBit(bytes);
  return held === undefined
    ? undefined
    : {
        kind: 'aliased',
        words: `Each ${formatOffset(2 ** held)} bytes come twice: address bit ${held} is held.`,
      };
}

/** An address bit that changes nothing all over the dump. */
function heldBit(bytes: Uint8Array): number | undefined {
  for (let bit = Math.floor(Math.log2(bytes.length)) - 1; bit >= 4; bit--) {
    const step = 2 ** bit;
    let same = true;
    for (let i = 0; i + step < bytes.length && same; i++) if (!(i & step) && bytes[i] !== bytes[i + step]) same = false;
    if (same) return bit;
  }
  return undefined;
}

const cutOff = (length: number, family: ImageFamily): ImageAnomaly => {
  const inside = family.regions.find((r) => length >= r.offset && length < r.offset + r.length);
  return {
    kind: 'truncated',
    words: `Cut off at ${length.toLocaleString('en')} of ${family.sizeBytes.toLocaleString('en')} bytes${inside ? `, inside ${inside.name}` : ''}: it begins as ${family.name} does.`,
  };
};

/** Nothing but FF to the end, over regions in which the family keeps something. */
function emptyTail(bytes: Uint8Array, family: ImageFamily): ImageAnomaly | undefined {
  let end = bytes.length;
  while (end > 0 && bytes[end - 1] === 0xff) end--;
  const lost = family.regions.filter((r) => r.meaning !== 'padding' && r.offset >= end);
  if (bytes.length - end < LEAST_TAIL || lost.length === 0) return undefined;
  return {
    kind: 'truncated',
    words: `Only FF from ${formatOffset(end)} on, where ${lost.map((r) => r.name).join(', ')} should be: the read stopped there.`,
  };
}

function shifted(bytes: Uint8Array, family: ImageFamily): ImageAnomaly | undefined {
  for (let by = 1; by <= MOST_SHIFT; by++) {
    if (beginsWith(bytes, family, by))
      return {
        kind: 'shifted',
        words: `Its beginning ${family.magicHex.toUpperCase()} stands ${by} ${by === 1 ? 'byte' : 'bytes'} late: the read began early, or lost its place.`,
      };
  }
  const magic = magicOf(family);
  for (let by = 1; by < magic.length - 1; by++) {
    if (magic.slice(by).every((b, k) => bytes[k] === b))
      return {
        kind: 'shifted',
        words: `Its first ${by === 1 ? 'byte is' : `${by} bytes are`} missing: the read began late.`,
      };
  }
  return undefined;
}

function otherFamily(
  bytes: Uint8Array,
  family: ImageFamily,
  families: readonly ImageFamily[],
): ImageAnomaly | undefined {
  const other = families.find((f) => f.id !== family.id && beginsWith(bytes, f, 0));
  return (
    other && {
      kind: 'otherFamily',
      words: `It begins as ${other.name} does, not as ${family.name}: another family’s image.`,
    }
  );
}

/** One wrong bit under a checksum, found by trying each: only where exactly one bit makes it hold. */
function flipped(bytes: Uint8Array, family: ImageFamily): ImageAnomaly | undefined {
  for (const [k, verdict] of checkSums(family, bytes).entries()) {
    if (verdict.holds) continue;
    const region = checksumRegions(family)[k];
    const { offset, length } = region.covers!;
    if (length > MOST_FLIP_BYTES) continue;
    const bit = singleBit(region, bytes.subarray(offset, offset + length), verdict.stored);
    if (bit === undefined) continue;
    const at = offset + (bit >>> 3);
    return {
      kind: 'flipped',
      words: `One bit is wrong: bit ${bit & 7} of ${formatOffset(at)}; with it turned ${region.name} holds. Read again before trusting it.`,
    };
  }
  return undefined;
}

/** The bit whose turning gives a range its checksum. A CRC is linear: each bit changes it by a number of its own. */
function singleBit(region: Region, range: Uint8Array, stored: number): number | undefined {
  const checksum = checksumOf(region)!;
  // Short fields and sums are met by many bits; only a wide CRC names one.
  if (checksum.kind !== 'crc' || checksum.bytes < 4) return undefined;
  const wanted = (checksum.of(range) ^ stored) >>> 0;
  const { crc } = checksum;
  const zero = new Uint8Array(1);
  // From the last byte backwards: what each of its bits does to the register, moved on by one byte of zero at a time.
  let changes = Array.from({ length: 8 }, (_, bit) => crc.run(Uint8Array.of(1 << bit), 0));
  for (let at = range.length - 1; at >= 0; at--) {
    const bit = changes.indexOf(wanted);
    if (bit >= 0) return 8 * at + bit;
    changes = changes.map((change) => crc.run(zero, change));
  }
  return undefined;
}

function otherPosition(bytes: Uint8Array, family: ImageFamily, position: number | undefined): ImageAnomaly | undefined {
  if (position === undefined || family.positionOffset === undefined) return undefined;
  const got = bytes[family.positionOffset];
  return got === position
    ? undefined
    : {
        kind: 'otherPosition',
        words: `Right family, other position: expected ${position}; the settings carry ${got}.`,
      };
}

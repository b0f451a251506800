import { fail, ok, type Result } from '../result';
import { formatHex } from '../units';
import { USUAL_ERASES, type FlashChip } from './chip';

/** `SFDP` read as a little-endian number. Source: JESD216. */
export const SFDP_SIGNATURE = 0x50444653;
const HEADER_BYTES = 16;
/** Words of the basic table that are made and needed: up to the erase types. */
const BASIC_WORDS = 9;

export interface DiscoveryTable {
  readonly sizeBytes: number;
  readonly erases: readonly { readonly bytes: number; readonly opcode: number }[];
}

/** Reads density and erase types of the basic flash table. Source: JESD216, basic flash parameter table, words 2, 8 and 9. */
export function readSfdp(bytes: Uint8Array): Result<DiscoveryTable> {
  if (bytes.length < HEADER_BYTES)
    return fail(`Expected at least ${HEADER_BYTES} bytes of the discovery table; got ${bytes.length}.`);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const signature = view.getUint32(0, true);
  if (signature !== SFDP_SIGNATURE)
    return fail(`Expected the signature 50444653; got ${formatHex(signature, 8)}: this chip has no discovery table.`);
  const words = bytes[11];
  const pointer = bytes[12] | (bytes[13] << 8) | (bytes[14] << 16);
  if (words < BASIC_WORDS) return fail(`Expected a basic table of at least ${BASIC_WORDS} words; got ${words}.`);
  if (pointer + 4 * words > bytes.length)
    return fail(`Expected the basic table within ${bytes.length} bytes; it ends at ${pointer + 4 * words}.`);
  const density = view.getUint32(pointer + 4, true);
  const bits = density >= 2 ** 31 ? 2 ** (density - 2 ** 31) : density + 1;
  const erases = [0, 1, 2, 3].flatMap((k) => {
    const [log2, opcode] = [bytes[pointer + 28 + 2 * k], bytes[pointer + 29 + 2 * k]];
    return log2 === 0 ? [] : [{ bytes: 2 ** log2, opcode }];
  });
  return ok({ sizeBytes: bits / 8, erases: erases.sort((a, b) => a.bytes - b.bytes) });
}

/** The table that a chip of this kind shows: header, one parameter header, basic table. */
export function makeSfdp({ sizeBytes, erases }: FlashChip): Uint8Array {
  const bytes = new Uint8Array(HEADER_BYTES + 4 * BASIC_WORDS).fill(0xff);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, SFDP_SIGNATURE, true);
  // Revision 1.0, one parameter header; the basic table's own: revision 1.0, its words, its place.
  bytes.set([0, 1, 0, 0xff, 0x00, 0, 1, BASIC_WORDS, HEADER_BYTES, 0, 0, 0xff], 4);
  view.setUint32(HEADER_BYTES + 4, sizeBytes * 8 - 1, true);
  bytes.fill(0, HEADER_BYTES + 28, HEADER_BYTES + 36);
  erases.forEach(({ bytes: size, opcode }, k) => bytes.set([Math.log2(size), opcode], HEADER_BYTES + 28 + 2 * k));
  return bytes;
}

/** A chip by its discovery table; times are usual ones. */
export const chipOf = ({ sizeBytes, erases }: DiscoveryTable, usual: FlashChip): FlashChip => ({
  ...usual,
  sizeBytes,
  erases: erases.map((e) => ({
    ...e,
    typicalMs:
      USUAL_ERASES.find((u) => u.bytes === e.bytes)?.typicalMs ?? USUAL_ERASES[2].typicalMs * (e.bytes / 65536),
  })),
});

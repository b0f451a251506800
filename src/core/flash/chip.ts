/** What can be erased at once, and how long it takes. */
export interface EraseKind {
  readonly bytes: number;
  readonly opcode: number;
  readonly typicalMs: number;
}

/** A serial flash as far as reading and writing it go. */
export interface FlashChip {
  readonly sizeBytes: number;
  /** Bytes programmed at once, within one page. */
  readonly pageBytes: number;
  readonly pageMs: number;
  /** Smallest first; each a multiple of the one before. */
  readonly erases: readonly EraseKind[];
}

/** Times of a usual serial flash. Common practice, no source. */
export const USUAL_ERASES: readonly EraseKind[] = [
  { bytes: 4096, opcode: 0x20, typicalMs: 45 },
  { bytes: 32768, opcode: 0x52, typicalMs: 120 },
  { bytes: 65536, opcode: 0xd8, typicalMs: 150 },
];
const PAGE_BYTES = 256;
const PAGE_MS = 0.7;

/** A chip of some size with the usual pages and erases. */
export const usualChip = (sizeBytes: number): FlashChip => ({
  sizeBytes,
  pageBytes: PAGE_BYTES,
  pageMs: PAGE_MS,
  erases: USUAL_ERASES.filter((e) => e.bytes <= sizeBytes),
});

/** Block-protect bits of the status register: bits 4 to 2. Common practice, no source. */
const PROTECT_SHIFT = 2;
const PROTECT_MASK = 0b111;
const PROTECT_UNIT = 65536;

/** From which offset on a chip is protected, by its status: nothing, or so many blocks of 64 KiB at its top, doubling. */
export function protectedFrom(status: number, sizeBytes: number): number {
  const level = (status >>> PROTECT_SHIFT) & PROTECT_MASK;
  if (level === 0) return sizeBytes;
  return Math.max(0, sizeBytes - PROTECT_UNIT * 2 ** (level - 1));
}

export const withoutProtection = (status: number): number => status & ~(PROTECT_MASK << PROTECT_SHIFT);

import type { EraseKind, FlashChip } from './chip';

export type WriteStep =
  | { readonly kind: 'erase'; readonly offset: number; readonly erase: EraseKind }
  | { readonly kind: 'program'; readonly offset: number; readonly bytes: Uint8Array };

export interface WritePlan {
  readonly steps: readonly WriteStep[];
  readonly erasedBytes: number;
  readonly pages: number;
  readonly tookMs: number;
}

interface Way {
  readonly ms: number;
  readonly erases: readonly { readonly offset: number; readonly erase: EraseKind }[];
  /** Pages to be programmed, by number. */
  readonly pages: readonly number[];
}

/**
 * The quickest erases and page programs that bring a chip from what it holds to what it should: programming clears bits
 * without erasing; an erase sets all bits of its block, of which all that is wanted then has to be programmed again. Blocks
 * of the larger erases hold whole blocks of the smaller, so that the best of each level is the better of erasing it at
 * once and of the best of its parts.
 * @param current, target both as long as the chip.
 */
export function planWrite(chip: FlashChip, current: Uint8Array, target: Uint8Array): WritePlan {
  const largest = chip.erases.length - 1;
  const block = chip.erases[largest].bytes;
  const ways: Way[] = [];
  for (let at = 0; at < chip.sizeBytes; at += block) ways.push(bestWay(chip, current, target, largest, at));
  const erases = ways.flatMap((w) => w.erases);
  const pages = ways.flatMap((w) => w.pages);
  return {
    steps: [
      ...erases.map(({ offset, erase }): WriteStep => ({ kind: 'erase', offset, erase })),
      ...pages.map((page): WriteStep => programStep(chip, target, page)),
    ],
    erasedBytes: erases.reduce((sum, e) => sum + e.erase.bytes, 0),
    pages: pages.length,
    tookMs: ways.reduce((sum, w) => sum + w.ms, 0),
  };
}

const programStep = ({ pageBytes }: FlashChip, target: Uint8Array, page: number): WriteStep => ({
  kind: 'program',
  offset: page * pageBytes,
  bytes: target.subarray(page * pageBytes, (page + 1) * pageBytes),
});

/** @param level of the erase, −1 for none. */
function bestWay(chip: FlashChip, current: Uint8Array, target: Uint8Array, level: number, at: number): Way {
  if (level < 0) return withoutErase(chip, current, target, at);
  const erase = chip.erases[level];
  const part = level > 0 ? chip.erases[level - 1].bytes : erase.bytes;
  const parts: Way[] = [];
  for (let k = at; k < at + erase.bytes; k += part) parts.push(bestWay(chip, current, target, level - 1, k));
  const ms = parts.reduce((sum, p) => sum + p.ms, 0);
  const inParts = { ms, erases: parts.flatMap((p) => p.erases), pages: parts.flatMap((p) => p.pages) };
  if (ms === 0) return inParts;
  const pages = pagesOf(chip, at, erase.bytes).filter((page) => !isErased(chip, target, page));
  const atOnce = { ms: erase.typicalMs + pages.length * chip.pageMs, erases: [{ offset: at, erase }], pages };
  return atOnce.ms < ms ? atOnce : inParts;
}

/** The smallest block without an erase: pages that differ, where only ones become zeros. */
function withoutErase(chip: FlashChip, current: Uint8Array, target: Uint8Array, at: number): Way {
  const block = chip.erases[0].bytes;
  const pages: number[] = [];
  for (const page of pagesOf(chip, at, block)) {
    const from = page * chip.pageBytes;
    let differs = false;
    for (let i = from; i < from + chip.pageBytes; i++) {
      if (current[i] === target[i]) continue;
      if ((current[i] & target[i]) !== target[i]) return { ms: Infinity, erases: [], pages: [] };
      differs = true;
    }
    if (differs) pages.push(page);
  }
  return { ms: pages.length * chip.pageMs, erases: [], pages };
}

const pagesOf = ({ pageBytes }: FlashChip, at: number, bytes: number): number[] =>
  Array.from({ length: bytes / pageBytes }, (_, k) => at / pageBytes + k);

function isErased({ pageBytes }: FlashChip, bytes: Uint8Array, page: number): boolean {
  for (let i = page * pageBytes; i < (page + 1) * pageBytes; i++) if (bytes[i] !== 0xff) return false;
  return true;
}

/**
 * 4b5b symbols, ordered sets and packets as bits. Source: USB Power Delivery specification, physical layer: table of
 * 4b5b symbols, table of ordered sets; codes are sent with the lowest bit first.
 */

const DATA_SYMBOLS = [
  0b11110, 0b01001, 0b10100, 0b10101, 0b01010, 0b01011, 0b01110, 0b01111, 0b10010, 0b10011, 0b10110, 0b10111, 0b11010,
  0b11011, 0b11100, 0b11101,
] as const;

const SYNC_1 = 0b11000;
const SYNC_2 = 0b10001;
const SYNC_3 = 0b00110;
const RST_1 = 0b00111;
const RST_2 = 0b11001;
export const EOP = 0b01101;

export type OrderedSet = 'SOP' | "SOP'" | "SOP''" | 'Hard Reset' | 'Cable Reset';

export const ORDERED_SETS: Readonly<Record<OrderedSet, readonly number[]>> = {
  SOP: [SYNC_1, SYNC_1, SYNC_1, SYNC_2],
  "SOP'": [SYNC_1, SYNC_1, SYNC_3, SYNC_3],
  "SOP''": [SYNC_1, SYNC_3, SYNC_1, SYNC_3],
  'Hard Reset': [RST_1, RST_1, RST_1, RST_2],
  'Cable Reset': [RST_1, SYNC_1, RST_1, SYNC_3],
};

/** Nibble of each 5-bit symbol; 255 for symbols that carry no data. */
export const NIBBLE_OF: Uint8Array = (() => {
  const table = new Uint8Array(32).fill(255);
  DATA_SYMBOLS.forEach((symbol, nibble) => (table[symbol] = nibble));
  return table;
})();

const PREAMBLE_BITS = 64;

function pushSymbol(bits: number[], symbol: number): void {
  for (let b = 0; b < 5; b++) bits.push((symbol >> b) & 1);
}

/** The bits of a packet: preamble, ordered set, bytes low nibble first, end of packet. Resets have no bytes and no end. */
export function packetBits(set: OrderedSet, bytes: Uint8Array = new Uint8Array(0)): number[] {
  const bits: number[] = [];
  for (let i = 0; i < PREAMBLE_BITS; i++) bits.push(i & 1);
  for (const symbol of ORDERED_SETS[set]) pushSymbol(bits, symbol);
  if (set.endsWith('Reset')) return bits;
  for (const byte of bytes) {
    pushSymbol(bits, DATA_SYMBOLS[byte & 15]);
    pushSymbol(bits, DATA_SYMBOLS[byte >> 4]);
  }
  pushSymbol(bits, EOP);
  return bits;
}

/** The symbol at a bit position, lowest bit first. */
export const symbolAt = (bits: ArrayLike<number>, at: number): number =>
  bits[at] | (bits[at + 1] << 1) | (bits[at + 2] << 2) | (bits[at + 3] << 3) | (bits[at + 4] << 4);

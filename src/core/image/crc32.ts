/**
 * CRC-32/ISO-HDLC: polynomial 04C11DB7 reflected, initial and final all ones. Check value CBF43926.
 * Source: catalogue of parametrised CRC algorithms; the table method is Sarwate's (1988).
 */
const TABLE = makeTable();

function makeTable(): Uint32Array {
  const table = new Uint32Array(256);
  for (let i = 0; i < 256; i++) {
    let c = i;
    for (let bit = 0; bit < 8; bit++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
    table[i] = c;
  }
  return table;
}

/** @returns the CRC-32 of the bytes as an unsigned 32-bit number. */
export function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff;
  for (let i = 0; i < bytes.length; i++) crc = (crc >>> 8) ^ TABLE[(crc ^ bytes[i]) & 0xff];
  return (crc ^ 0xffffffff) >>> 0;
}

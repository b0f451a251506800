import { checksumByName } from '../checksum';

const ISO_HDLC = checksumByName('CRC-32/ISO-HDLC')!;

/** @returns CRC-32/ISO-HDLC of the bytes as an unsigned 32-bit number. */
export const crc32 = (bytes: Uint8Array): number => ISO_HDLC.of(bytes);

import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';

/** SHA-256 of the bytes as 64 hex digits. Source: FIPS 180-4, by way of a maintained package. */
export const sha256Hex = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/** SHA-256 of a text's UTF-8 bytes. */
export const sha256OfText = (text: string): string => sha256Hex(utf8ToBytes(text));

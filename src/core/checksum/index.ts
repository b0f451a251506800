export { CHECKSUMS, checksumByName, readField, writeField, type Checksum } from './catalogue';
export type { FoundChecksum } from './evidence';
export { findChecksums, type FoundChecksums } from './find';

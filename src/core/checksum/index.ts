export { CHECKSUMS, checksumByName, readField, writeField, type Checksum } from './catalogue';
export { findChecksums, type FoundChecksum, type FoundChecksums } from './find';

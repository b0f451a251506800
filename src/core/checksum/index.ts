export { CHECKSUMS, checksumByName, readField, writeField, type Checksum } from './catalogue';
export { findChecksums, type FindOptions, type FoundChecksum, type FoundChecksums } from './find';

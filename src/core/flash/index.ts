export { protectedFrom, usualChip, withoutProtection, type EraseKind, type FlashChip } from './chip';
export { readIdentity, type FlashIdentity } from './identity';
export { makeSfdp, readSfdp, type DiscoveryTable } from './sfdp';
export { judgeReads, type ReadVerdict } from './reads';
export { planWrite, type WritePlan, type WriteStep } from './write-plan';
export { SupplyLost, type Programmer } from './programmer';
export {
  openFlash,
  readFlash,
  writeFlash,
  type Opened,
  type Progress,
  type WriteOptions,
  type Written,
} from './procedure';

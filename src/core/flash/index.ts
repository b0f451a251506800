export { protectedFrom, usualChip, withoutProtection, type FlashChip } from './chip';
export { readIdentity } from './identity';
export { makeSfdp, readSfdp } from './sfdp';
export { judgeReads, type ReadVerdict } from './reads';
export { planWrite, type WritePlan } from './write-plan';
export { SupplyLost, type Programmer } from './programmer';
export { openFlash, readFlash, writeFlash, type Opened, type Written } from './procedure';

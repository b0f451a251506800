export { ledgerOf } from './entry';
export { changeOf, leaveOneOut, shareChangeOf, type Change, type Moved } from './learning';
export { GOOD, jobsNear, pointGroups, type NearValue, type PointGroup, type PointReading } from './points';
export {
  LEDGER_GROUPS,
  tally,
  toldAndWas,
  type LedgerGroup,
  type LedgerLine,
  type LedgerRow,
  type ToldAndWas,
} from './tally';

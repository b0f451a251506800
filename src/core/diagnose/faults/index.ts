export { singleFaults } from './catalogue';
export { isGone, SHORT_OHM, SOUND, workNames, type Effect, type Fault } from './fault';
export { fittingFaults } from './fitting';
export { OUTSIDE, OUTSIDE_THINGS, outsideFaultId, type OutsideThing } from './outside';
export { HISTORY_FACTORS, historyFactor, historyFactorOf } from './history';
export { faultsOfPart, PART_KIND_DEFINITIONS, partWork } from './registry';
export {
  clearedPart,
  clearedTarget,
  currentKey,
  jointsOf,
  targetKey,
  targetRef,
  type RepairTarget,
} from './repair-target';
export { HISTORY_FLAGS, type HistoryFlag } from './story';
export { UNLISTED, unlistedFaults, UNLISTED_SHARE } from './unlisted';

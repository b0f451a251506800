export { singleFaults } from './catalogue';
export { isGone, SHORT_OHM, SOUND, type Effect, type Fault } from './fault';
export { OUTSIDE, OUTSIDE_THINGS, outsideFaultId, type OutsideThing } from './outside';
export { HISTORY_FACTORS, historyFactor, historyFactorOf } from './history';
export { faultsOfPart, PART_KIND_DEFINITIONS, partWork } from './registry';
export { clearedPart, clearedTarget, targetKey, type RepairTarget } from './repair-target';
export { HISTORY_FLAGS, type HistoryFlag } from './story';

export { bestOrder, clearingSteps, orderCost, stretchesOf, type ClearingStep, type EdgeSegment } from './edges';
export { threatsRound, tryGuards, type Guard, type Threat } from './guards';
export { planClearing, type ClearingPlan, type ClearingRequest } from './plan';
export { windowInDoubt, type DoubtfulTime, type DoubtfulWindow } from './windows';

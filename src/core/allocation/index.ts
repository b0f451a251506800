export { costAlone, type AloneCost } from './alone';
export { allocate, lpText, planCost, type IntegerSolver } from './model';
export type {
  AllocationNeed,
  AllocationOption,
  AllocationPlan,
  AllocationProblem,
  DonorOffer,
  Supply,
} from './problem';

export { costAlone, type AloneCost } from './alone';
export { allocate, type IntegerSolver } from './model';
export type {
  AllocationNeed,
  AllocationOption,
  AllocationPlan,
  AllocationProblem,
  DonorOffer,
  Supply,
} from './problem';

export { learnedDuration } from './durations';
export { jobEnds, promisesSeen, stretchOf, type PromiseSeen } from './promise';
export { dayProblemSchema, type DayJob, type DayProblem, type Slot } from './problem';
export { quoteOf, type Quote } from './quote';
export { quoteOfJob, usualRule } from './quote-of-job';
export { planDay, type DayPlan } from './schedule';
export {
  learnedDurations,
  STEP_KINDS_OF,
  stageMinutes,
  stepsAhead,
  stepsSeen,
  type Durations,
  type StepKind,
} from './steps-ahead';

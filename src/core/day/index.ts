export { learnedDuration } from './durations';
export { jobEnds, promisesSeen, stretchOf, type PromiseSeen } from './promise';
export { dayProblemSchema, type DayJob, type DayProblem, type Slot } from './problem';
export { quoteOf, type Quote } from './quote';
export { businessSchema, DEFAULT_BUSINESS, priceRule, type Business } from './business';
export { MESSAGE_FACTS, messageFor, type MessageFact } from './quote-message';
export { quoteOfJob } from './quote-of-job';
export { planDay, type DayPlan } from './schedule';
export { workingDay } from './working-day';
export { hoursLabel, spansFromText, spansText, WEEK, type WorkHours } from './shop-hours';
export {
  learnedDurations,
  STEP_KINDS_OF,
  stageMinutes,
  stepsAhead,
  stepsSeen,
  type Durations,
  type StepKind,
} from './steps-ahead';

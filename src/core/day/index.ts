export { learnedDuration } from './durations';
export { jobEnds, promisesSeen, stretchOf, type PromiseSeen } from './promise';
export { dayProblemSchema, type DayJob, type DayProblem, type Slot } from './problem';
export { quoteOf, type Quote } from './quote';
export { quoteOfJob, usualRule } from './quote-of-job';
export { planDay, type DayPlan } from './schedule';
export { learnedDurations, stageMinutes, stepsAhead, type Durations } from './steps-ahead';

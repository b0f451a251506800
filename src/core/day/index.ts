export { planDay, type DayOptions, type DayPlan } from './schedule';
export { dayProblemSchema, type DayCost, type DayJob, type DayProblem, type DayStep, type Slot } from './problem';

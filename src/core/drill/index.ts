export { hiddenBoards, together } from './hidden';
export { NoisyBench } from './noisy-bench';
export {
  DrillPlay,
  drillStepSchema,
  followed,
  parOf,
  replay,
  type DrillStep,
  type Mistake,
  type StepReview,
} from './play';
export { expectedScore, NEW_LEARNER, nextGrade, rated, type Rating } from './rating';
export { MISTAKE_WORDS, scoreOf, type DrillScore } from './score';
export { courseOn, drawDrill, drillSchema, unknownFaults, type Drill } from './definition';
export { drillOfWork } from './of-work';
export { completeDrillLine, DRILL_FORMS, readDrillLine, stemOf } from './line';

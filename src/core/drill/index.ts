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
export { tourStop, type TourStop } from './tour';
export { completeDrillLine, DRILL_FORMS, readDrillLine, stemOf } from './line';
export {
  airSetup,
  flyAir,
  MOST_FLIGHT_S,
  type AirDrill,
  type AirMove,
  type AirSetting,
  type Flight,
} from './exercises/air/flight';
export { airSight, FLUX_WORDS, swims } from './exercises/air/seen';
export { eyesPicture, FLAW_WORDS, type EyesDrill } from './exercises/eyes/eyes';
export { linesQuestion, OUTCOME_WORDS, type LinesDrill, type LinesQuestion } from './exercises/lines/lines';
export { allFacts, type Fact } from './memory/facts';
export { dueFacts, memorySchema, recalled, recallSchema, type Memory, type Recall } from './memory/schedule';
export {
  EXERCISE_NAMES,
  EXERCISES,
  exerciseCourse,
  exerciseSchema,
  reviewExercise,
  type ExerciseName,
  type ExerciseReview,
  type ExerciseSpec,
} from './exercises/registry';

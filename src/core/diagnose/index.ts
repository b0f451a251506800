export { suspectPairs, suspects, updateBelief, type Belief, type Suspect, type SuspectPair } from './belief';
export { FaultCase } from './case';
export { singleFaults } from './catalogue';
export { expectedShare, SURPRISING_BELOW, turnsOf, type Turn } from './doubt';
export {
  HISTORY_FACTORS,
  HISTORY_FLAGS,
  historyFactor,
  isGone,
  OUTSIDE,
  OUTSIDE_THINGS,
  outsideFaultId,
  type Fault,
  type HistoryFactors,
  type HistoryFlag,
  type OutsideThing,
} from './faults';
export {
  boardMeasurements,
  choiceOf,
  entryStem,
  LOOK_FINDINGS,
  measurementId,
  measurementTitle,
  placeOf,
  railMeasured,
  mendedFor,
  pinNet,
  type LookFinding,
  type Measurement,
  type Reading,
  type Unsteady,
  type Value,
} from './measurement';
export {
  accessFor,
  deeper,
  openingMinutes,
  proofMinutes,
  shieldFor,
  testMinutes,
  workMinutes,
  workOf,
  type Access,
} from './minutes';
export { SHORT_BELOW_OHM, SOUND, holdsRipple, meaningOf, railWindow, type Meaning } from './meaning';
export { METER_WORDS, meterCases, meterReading, readMeter } from './meter';
export { outcomesOf, proposeTests, type Proposal, type TestContext } from './next';
export { needName, rankRepairs, repairPart, repairWords, type Repair, type RepairPart } from './repairs';
export { Predictor } from './predict';
export {
  DEAD_ON_ARRIVAL,
  DEFAULT_PRACTICE,
  DOUBLE_SHARE,
  ERROR_RATE,
  errorRate,
  KIND_WORDS,
  practiceSchema,
  type JobPractice,
  type MeasurementKind,
  type Practice,
} from './practice';
export { SHAPES, type Prediction, type Shape } from './prediction';
export { bestTest, fixedChecklist, idealReading, runPolicy, type PolicyRun } from './policy';
export type { MeterCase } from './power';
export { checkReading, measurementSchema, readingSchema, valueSchema } from './schema';
export { LOOK_WORDS, outlook, readingName, reasons, SHAPE_WORDS, STOP_WORDS, unsteadyWords, valueWords } from './words';
export { pickWeighted, sampleReading } from './simulate';
export { DEVICE_WORTH, HARM, HOUR_PRICE, PART_PRICE, priceOf, workCost, type WorkCost } from './costs';
export { CureWork, needOf, type Need } from './work';
export { weighSteps, type Weighed, type WeighedTest } from './step';
export { warmUp } from './warm';

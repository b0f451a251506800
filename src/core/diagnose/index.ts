export { openingMinutes, deeper, type Access } from './access';
export { suspectPairs, suspects, updateBelief, type Belief, type Suspect, type SuspectPair } from './belief';
export { FaultCase } from './case';
export { CureWork, type Need } from './cure-work';
export { expectedShare, SURPRISING_BELOW, turnsOf, type Turn } from './doubt';
export { outlook, reasons } from './explain';
export {
  clearedPart,
  clearedTarget,
  HISTORY_FACTORS,
  HISTORY_FLAGS,
  historyFactor,
  isGone,
  OUTSIDE,
  OUTSIDE_THINGS,
  outsideFaultId,
  PART_KIND_DEFINITIONS,
  partWork,
  singleFaults,
  SOUND,
  targetKey,
  type Fault,
  type HistoryFactors,
  type HistoryFlag,
  type OutsideThing,
  type RepairTarget,
} from './faults';
export {
  accessFor,
  boardMeasurements,
  checkReading,
  comparesWithGoodBoards,
  entryStem,
  figureLabelOf,
  interpretReading,
  isOutsideTest,
  measurementId,
  measurementOfReference,
  measurementTitle,
  placeOf,
  powerNeedOf,
  readingName,
  shieldFor,
  testCaution,
  testMinutes,
  valueLabel,
} from './measurement';
export type { Interpretation, MeasurementEntry, MeasurementLineContext } from './measurements/definition';
export { SHORT_BELOW_OHM } from './measurements/ground-resistance';
export { inSmallLetters, partNames } from './measurements/line-value';
export { METER_PATTERN_LABELS, METER_PATTERNS, type MeterPattern } from './measurements/meter-pattern';
export { netAt } from './measurements/naming';
export { measurementTerm } from './measurements/old-names';
export { PD_OUTCOME_LABELS } from './measurements/pd-negotiation';
export { holdsRipple, packRail, railWindow } from './measurements/rail-voltage';
export {
  definitionOfKind,
  measurementCommands,
  MEASUREMENT_KINDS,
  measurementKindNames,
  measurementSchema,
  type Measurement,
  type MeasurementKind,
} from './measurements/registry';
export { findingsLabel, LOOK_FINDING_LABELS } from './measurements/scale';
export { METER_WORDS, meterCases, meterReading, readMeter } from './meter';
export { outcomesOf, proposeTests, type Proposal, type TestContext } from './next';
export { bestTest, fixedChecklist, idealReading, runPolicy, type PolicyRun } from './policy';
export type { MeterCase } from './power';
export {
  DEAD_ON_ARRIVAL,
  DEFAULT_PRACTICE,
  DOUBLE_SHARE,
  errorRate,
  practiceFromStored,
  practiceSchema,
  practiceToStored,
  type JobPractice,
  type Practice,
} from './practice';
export { placeNames } from './places';
export type { Prediction } from './prediction';
export { Predictor } from './predictor';
export { clearedFaults, readingSchema, type Reading } from './reading';
export {
  DEVICE_WORTH,
  HOUR_PRICE,
  priceOf,
  proofMinutes,
  repairCost,
  repairMinutes,
  type RepairCost,
} from './repair-cost';
export {
  rankRepairs,
  repairAction,
  repairLabel,
  targetName,
  type BoardTarget,
  type Repair,
  type RepairAction,
} from './repairs';
export { pickWeighted, sampleReading } from './simulate';
export { weighSteps, type Weighed, type WeighedTest } from './step';
export { LOOK_FINDINGS, unsteadyLabels, valueSchema, type LookFinding, type Unsteady, type Value } from './value';
export { warmUp } from './warm';

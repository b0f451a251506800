export { openingMinutes, deeper, type Access } from './access';
export { curedFaults, suspects, updateBelief, type Belief, type Suspect } from './belief';
export { suspectPairs, type SuspectPair } from './suspect-pairs';
export { FaultCase } from './case';
export { expectedShare, SURPRISING_BELOW, rankingFlips } from './doubt';
export { outlook, reasons } from './explain';
export {
  clearedPart,
  clearedTarget,
  currentKey,
  jointsOf,
  HISTORY_FACTORS,
  HISTORY_FLAGS,
  historyFactor,
  isGone,
  OUTSIDE,
  OUTSIDE_THINGS,
  PART_KIND_DEFINITIONS,
  partWork,
  singleFaults,
  SOUND,
  targetKey,
  workNames,
  type Fault,
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
  meterReads,
  placeOf,
  powerNeedOf,
  readingName,
  referenceProblem,
  shieldFor,
  testCaution,
  testMinutes,
  valueLabel,
} from './measurement';
export type { Interpretation, MeasurementEntry } from './measurements/definition';
export { SHORT_BELOW_OHM } from './measurements/ground-resistance';
export { inSmallLetters, partNames } from './measurements/line-value';
export { type MeterPattern } from './measurements/meter-pattern';
export { measurementTerm } from './measurements/old-names';
export { holdsRipple, packRail, railWindow } from './measurements/rail-voltage';
export {
  measurementCommands,
  MEASUREMENT_KINDS,
  measurementKindNames,
  measurementSchema,
  type Measurement,
} from './measurements/registry';
export { findingsLabel, LOOK_FINDING_LABELS } from './measurements/scale';
export { METER_WORDS, meterCases, readMeter } from './meter';
export { outcomesOf, proposalOf, type TestContext } from './next';
export { againstProposed, whyNot, type WhyNot } from './why-not';
export { bestTest, fixedChecklist, idealReading, runPolicy, type PolicyRun } from './policy';
export type { MeterCase } from './power';
export {
  DEAD_ON_ARRIVAL,
  DEFAULT_PRACTICE,
  DOUBLE_SHARE,
  practiceFromStored,
  practiceSchema,
  practiceToStored,
  type JobPractice,
  type Practice,
} from './practice';
export { placeNames } from './places';
export { Predictor } from './predictor';
export { clearedFaults, readingSchema, type Reading } from './reading';
export { HOUR_PRICE, priceOf, proofMinutes, repairCost, repairMinutes } from './repair-cost';
export { rankRepairs, repairAction, repairLabel, targetName, type BoardTarget, type Repair } from './repairs';
export { standingOf, type Standing } from './next-move';
export {
  DiagnoseSession,
  STOP_WORDS,
  modelledOf,
  sessionAnswerSchema,
  sessionLineSchema,
  workLabel,
  workSchema,
  type SessionAnswer,
  type SessionLine,
} from './session';
export { pickWeighted, sampleReading } from './simulate';
export { rankActions, type RankedActions, type RankedTest } from './step';
export { LOOK_FINDINGS, unsteadyLabels, valueSchema, type LookFinding, type Unsteady, type Value } from './value';
export { warmUp } from './warm';

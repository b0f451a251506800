export { ERROR_RATE, suspects, updateBelief, type Belief, type Suspect } from './belief';
export {
  HISTORY_FACTORS,
  HISTORY_FLAGS,
  historyFactor,
  OUTSIDE,
  singleFaults,
  type Fault,
  type HistoryFlag,
} from './faults';
export {
  accessFor,
  boardMeasurements,
  entryStem,
  measurementId,
  measurementTitle,
  placeOf,
  railMeasured,
  testMinutes,
  workMinutes,
  type Access,
  type Measurement,
  type Reading,
  type Value,
} from './measurement';
export { SHORT_BELOW_OHM, SOUND, meaningOf, railWindow, type Meaning } from './meaning';
export { METER_WORDS, meterCases, meterReading, readMeter } from './meter';
export { outcomesOf, proposeTests, rankRepairs, type Proposal, type Repair } from './next';
export { Predictor } from './predict';
export type { Prediction } from './prediction';
export { bestTest, fixedChecklist, idealReading, runPolicy, type PolicyRun } from './policy';
export type { MeterCase } from './power';
export { checkReading, measurementSchema, readingSchema, valueSchema } from './schema';
export { outlook, readingName, reasons, valueWords } from './words';

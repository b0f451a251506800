export { analyseJob, isOutside, type JobAnalysis, type TestAdvice } from './analysis';
export { cautionFor, type Caution } from './cautions';
export { applyCompletion, completeEntry } from './complete';
export { isGated, LOOK_ADVICE, portGate, refusedPower, type PortGate } from './gate';
export { custodyOf, custodySeal, type CustodyLink } from './custody';
export { flatnessOf } from './entry-site';
export { lessonName } from './lesson-name';
export { mendedWords } from './mended';
export { type Past, type ThenAndNow } from './past';
export { partsUsed, suggestedPrice, type PartUsed } from './parts-used';
export { placeNames } from './places';
export { packRail, parseEntry, type Entry, type EntryMode } from './entry';
export {
  IMAGE_ROLES,
  OUTCOMES,
  eventBodySchema,
  jobEventSchema,
  type BallInspection,
  type ChosenRoute,
  type EventBody,
  type ImageRole,
  type JobEvent,
  type KeepEvent,
  type PadInspectionKept,
  type Outcome,
  type Story,
} from './events';
export { HISTORY_WORDS, findingsOf, shortWords, type Findings } from './findings';
export { foldJob, lastUndoable, liveEvents, takenOnBoardAsIs, type JobState, type TakenReading } from './fold';
export { factorRange, kindBelief, kindsAtFault, learnedRecords, type KindRecord } from './records';
export { nextStep, type NextStep } from './next-step';
export { proveJob, type JobProof, type PlugProof } from './proof';
export { runningSoak, viewSoak, type Soak, type SoakView } from './soak';
export { isPowered } from './next-step';
export { jointStem, walkJoints, type JointWalk, type WalkJoint } from './joint-walk';
export { isBareValue, walkPort, walkStem, type PortWalk, type WalkPin } from './walk';
export { STAGES, type StageId } from './stages';
export { eventWords, viewJob, type BenchKnowledge, type JobView, type ReadingView, type SuspectView } from './view';
export { storyShift, type StoryShift } from './story';
export { referencesFromJob } from './references';
export { beyondBoard, lessonOf, runMark, type Lesson, type RunMarkSeen } from './lesson';
export { benchMinutes } from './bench-minutes';
export { reportOf, type ReportOptions } from './report';
export { jobReportSchema, type JobReport } from './report-schema';
export { DEFAULT_REPORT_WORDS, reportWordsSchema, type ReportWords } from './report-words';
export {
  captureBody,
  captureReading,
  dialogueOf,
  outsideOf,
  packAtPort,
  traceBody,
  traceReadings,
  type OutsideView,
  type WayView,
  type OutsideTime,
} from './outside';

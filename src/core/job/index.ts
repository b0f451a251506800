export { analyseJob, isOutside, type JobAnalysis, type TestAdvice } from './assessment/analysis';
export { cautionFor, type Caution } from './assessment/cautions';
export { isGated, LOOK_ADVICE, portGate, refusedPower, type PortGate } from './assessment/gate';
export { custodyOf, custodySeal, type CustodyLink } from './closeout/custody';
export { flatnessOf } from './entry/site-lines';
export { lessonName } from './closeout/lesson-name';
export { mendedLabel } from './closeout/mended';
export { type Past, type ThenAndNow } from './assessment/past';
export { partsUsed, suggestedPrice, type PartUsed } from './closeout/parts-used';
export type { KeepEvent } from './decide/command';
export type { Entry, EntryMode } from './entry/context';
export { completeEntry, isBareValue, JOB_GRAMMAR, parseEntry } from './entry/grammar';
export { record, type JobCommand } from './decide/command';
export { decide, type DecidedEvent, type JobWorld } from './decide/decide';
export {
  EVENT_TYPES,
  eventBodySchema,
  eventFromText,
  foldJob,
  fromStored,
  IMAGE_ROLES,
  jobEventSchema,
  liveEvents,
  loggedEventSchema,
  OUTCOMES,
  runningSoak,
  takenOnBoardAsIs,
  toStored,
  viewSoak,
  type BallInspection,
  type BodyOf,
  type ChosenRoute,
  type KeptPadLook,
  type Story,
  type EventBody,
  type ImageRole,
  type JobEvent,
  type JobState,
  type Outcome,
  type Soak,
  type SoakView,
  type TakenReading,
  type UnreadableRow,
} from './log';
export { HISTORY_WORDS, findingsOf, shortWords, type Findings } from './assessment/findings';
export { factorRange, kindBelief, kindsAtFault, learnedRecords, type KindRecord } from './closeout/records';
export { nextStep, type NextStep } from './assessment/next-step';
export { proveJob, type JobProof, type PlugProof } from './proof/proof';
export { isPowered } from './assessment/next-step';
export { jointStem, walkJoints, type JointWalk, type WalkJoint } from './proof/joint-walk';
export { walkPort, walkStem, type PortWalk, type WalkPin } from './assessment/walk';
export { STAGES, type StageId } from './assessment/stages';
export {
  eventLabel,
  viewJob,
  type BenchKnowledge,
  type JobView,
  type ReadingView,
  type SuspectView,
} from './assessment/view';
export { storyShift, type StoryShift } from './assessment/story';
export { referencesFromJob } from './assessment/references';
export { beyondBoard, lessonOf, runMark, type Lesson, type RunMarkSeen } from './closeout/lesson';
export { benchMinutes } from './closeout/bench-minutes';
export { reportOf, type ReportOptions } from './report/report';
export { jobReportSchema, type JobReport } from './report/report-schema';
export { DEFAULT_REPORT_WORDS, reportWordsSchema, type ReportWords } from './report/report-words';
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
} from './assessment/outside';

export { LOOK_ADVICE, portGate } from './assessment/gate';
export { custodyOf, custodySeal, type CustodyLink } from './closeout/custody';
export { flatnessOf } from './entry/site-lines';
export { judgeSeat, judgeSeenBalls } from './proof/site-verdicts';
export { lessonName } from './closeout/lesson-name';
export { mendedLabels, workedOn } from './closeout/mended';
export { partsUsed, suggestedPrice } from './closeout/parts-used';
export type { KeepEvent } from './decide/command';
export type { EntryMode } from './entry/context';
export { isBareValue } from './entry/bare-value';
export { completeEntry, isQuestion, JOB_GRAMMAR, parseEntry } from './entry/grammar';
export { answerOf } from './assessment/why-not-mine';
export { record, withOrigin, type JobCommand, type JobQuestion } from './decide/command';
export { decide, type DecidedEvent } from './decide/decide';
export {
  decisionLabel,
  eventBodySchema,
  eventFromText,
  foldJob,
  IMAGE_ROLES,
  jobEventSchema,
  loggedEventSchema,
  originName,
  originSchema,
  OUTCOMES,
  runningSoak,
  summariseLog,
  toStored,
  TYPED,
  viewSoak,
  type BallInspection,
  type ChosenRoute,
  type KeptPadLook,
  type DeviceMarks,
  type Story,
  type EventBody,
  type ImageRole,
  type JobEvent,
  type JobFields,
  type JobState,
  type LogSummary,
  type Origin,
  type Outcome,
  type Soak,
} from './log';
export { HISTORY_WORDS, type Findings } from './assessment/findings';
export { factorRange, kindBelief, kindsAtFault, learnedRecords, type KindRecord } from './closeout/records';
export { isPowered } from './assessment/next-step';
export { jointStem, type JointWalk, type WalkJoint } from './proof/joint-walk';
export { walkPort, walkStem, type WalkPin } from './assessment/walk';
export { STAGES, type StageId } from './assessment/stages';
export { eventLabel } from './assessment/event-label';
export { misfits } from './decide/misfits';
export { fitToBoard } from './decide/unknown-on-board';
export { snapshotOf, type BenchKnowledge, type JobPurpose } from './assessment/snapshot';
export { viewJob, type JobView, type ReadingView } from './assessment/view';
export { storyShift } from './assessment/story';
export { beyondBoard, closeoutRecordOf, runMark, type RunMarkSeen } from './closeout/lesson';
export { benchMinutes } from './closeout/bench-minutes';
export { reportOf } from './report/report';
export { jobReportSchema, type JobReport } from './report/report-schema';
export { reportWordsSchema, type ReportWords } from './report/report-words';
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
} from './assessment/outside';

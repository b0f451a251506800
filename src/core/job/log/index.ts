export { OUTCOMES, type Outcome } from './events/close';
export { IMAGE_ROLES, type ImageRole } from './events/image';
export type { InspectionBody as BallInspection } from './events/inspection';
export type { PadLookBody as KeptPadLook } from './events/pad-look';
export type { RouteBody as ChosenRoute } from './events/route';
export type { StoryBody as Story } from './events/story';
export {
  EVENT_TYPES,
  eventBodySchema,
  eventDefinition,
  type BodyOf,
  type EventBody,
  type EventType,
} from './events/registry';
export { foldJob, liveEvents } from './fold';
export { eventFromText, jobEventSchema, loggedEventSchema, type JobEvent, type UnreadableBody } from './log';
export { runningSoak, viewSoak, type Soak, type SoakView } from './soak';
export {
  takenOnBoardAsIs,
  type JobFields,
  type JobState,
  type KeptTrace,
  type PriorClosure,
  type TakenReading,
  type UnreadableRow,
} from './state';
export { fromStored, toStored, type StoredEvent } from './stored';

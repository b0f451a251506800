export { billFrom, isBillHeader, withBill, type BillLine } from './bill';
export {
  completeBoard,
  completionChecks,
  EMPTY_PORT,
  startCompletion,
  type Check,
  type Completion,
  type CompletionSection,
  type FunctionCompletion,
  type PortCompletion,
  type RailCompletion,
} from './completion';
export { draftBoard, firstFew, type BoardDraft } from './draft';
export { nearOf } from './near';
export { recordsOf } from './export';
export { netsOf, type ForeignBoard } from './foreign';
export { foreignFromRecords } from './from-records';
export { infer, type Inference } from './infer';
export { parseIpc356, UNITS_356, unitOf356, writeIpc356, type TestRecord, type Unit356 } from './ipc356';
export { MIRRORINGS, parseIpc2581, type Mirroring } from './ipc2581';
export { parseKicad } from './kicad';
export { partsCsv } from './parts-csv';
export {
  fitPlacements,
  isPlacementHeader,
  placementsFrom,
  withPlacements,
  type PlacementFit,
  type PlacementList,
} from './placement';

export {
  completeBoard,
  completionChecks,
  startCompletion,
  type Check,
  type Completion,
  type CompletionSection,
  type FunctionCompletion,
  type RailCompletion,
} from './completion';
export { draftBoard, type BoardDraft } from './draft';
export { recordsOf } from './export';
export { partsCsv } from './parts-csv';
export { parseIpc356, writeIpc356, type TestRecord } from './ipc356';
export { parsePlacementCsv, type Placement } from './placement';

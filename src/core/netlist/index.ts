export { draftBoard, type BoardDraft } from './draft';
export { recordsOf } from './export';
export { parseIpc356, writeIpc356, type TestRecord } from './ipc356';
export { parsePlacementCsv, type Placement } from './placement';

export {
  concludeOutside,
  PATTERNS,
  typedRecord,
  type OutsideConclusion,
  type Pattern,
  type WayRecord,
} from './conclude';
export { CHARGERS, expectDraw, PACK_STATES, portOf, type Charger, type ExpectedDraw, type PackState } from './expect';
export { nameFor, nameSegments, SEGMENT_WORDS, type Segment, type SegmentName } from './name';
export { LineCost, penaltyOf, segment, type Stretch } from './segment';
export { simulateTrace, type WantedSegment } from './simulate';
export { durationS, figuresOf, type Trace } from './trace';
export { importMeterCsv, type ColumnChoice, type MeterImport } from './import';

export { concludeOutside, typedRecord, type OutsideConclusion, type Pattern, type WayRecord } from './conclude';
export { CHARGERS, expectDraw, PACK_STATES, type Charger, type ExpectedDraw, type PackState } from './expect';
export { nameFor, nameSegments, SEGMENT_WORDS, type Segment, type SegmentName } from './name';
export { LineCost, penaltyOf, segment } from './segment';
export { simulateTrace, type WantedSegment } from './simulate';
export { figuresOf, type Trace } from './trace';

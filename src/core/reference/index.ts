export { predictionInterval, statsOf, type Interval, type ReferenceStats } from './stats';
export { parseReferencesCsv, referencesCsv, referenceTable, type ReferenceReading, type ReferenceTable } from './table';

export { importFile, IMPORTERS } from './registry';
export type { Answers, ImportQuestion, Outcome } from './importer';
export { filePresetSchema, MOST_PRESETS, type FilePreset } from './preset';
export { meterTable, type MeterTable } from './table/meter';
export { thermoTable } from './table/thermo';
export { billOfMaterial, foreignBoard, placementTable, readBoardOf } from './board';
export { draftFromFile, type DraftFile, type DraftMade } from './board/draft-file';
export { firmwareImage } from './firmware';
export { CaptureReader, readCapture } from './capture';

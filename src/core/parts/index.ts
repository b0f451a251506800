export {
  SOURCES,
  SOURCE_WEIGHT,
  SOURCE_WORDS,
  SUCCESS_CONFIDENCE,
  reportSchema,
  successOf,
  type FunctionProof,
  type Report,
  type ReportSource,
  type SourceWeights,
  type Success,
} from './evidence';
export {
  VERDICTS,
  VERDICT_WORDS,
  actionMinutes,
  isChangeable,
  judgeFit,
  type Action,
  type Cell,
  type Fit,
  type FitSettings,
  type Verdict,
} from './fit';
export {
  BAKE_TABLE_MM,
  BAKE_TEMPS_C,
  MOISTURE_LEVELS,
  bakeH,
  floorLifeH,
  moistureState,
  type MoistureLevel,
  type MoistureMark,
  type MoistureState,
} from './moisture';
export {
  MEMORY_SCHOOLS,
  SCHOOL_WORDS,
  memorySchool,
  parsePartType,
  partFamilySchema,
  partTypeSchema,
  type MemorySchool,
  type PartFamily,
  type PartType,
} from './profile';
export { bakeWays, type BakeWay } from './bake-plan';
export { hoursWords, strapWords, type Candidate, type Need, type StrapChange } from './relations';
export {
  ATTRIBUTES,
  ATTRIBUTE_WORDS,
  ROUTE_ACTIONS,
  RULES,
  type Attribute,
  type Outcome,
  type Rule,
  type RuleId,
} from './rules';
export {
  STRAP_TOTAL_OHM,
  decodeStrap,
  designOneResistor,
  designStrap,
  type DecodedStrap,
  type Divider,
  type StrapDesign,
  type StrapWish,
} from './straps';

export {
  SOURCES,
  SOURCE_WEIGHT,
  SOURCE_WORDS,
  reportSchema,
  successOf,
  type FunctionProof,
  type Report,
  type ReportSource,
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
export { moistureState, type MoistureMark, type MoistureState } from './moisture';
export {
  MEMORY_SCHOOLS,
  SCHOOL_WORDS,
  memorySchool,
  parsePartType,
  partFamilySchema,
  partTypeSchema,
  type PartFamily,
  type PartType,
} from './profile';
export { bakeWays, type BakeWay } from './bake-plan';
export { hoursWords, strapWords, type Candidate, type Need } from './relations';
export { ATTRIBUTES, ATTRIBUTE_WORDS, ROUTE_ACTIONS, RULES, type Outcome, type RuleId } from './rules';
export {
  STRAP_TOTAL_OHM,
  decodeStrap,
  designOneResistor,
  designStrap,
  type DecodedStrap,
  type StrapDesign,
  type StrapWish,
} from './straps';

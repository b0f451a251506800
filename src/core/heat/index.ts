export { airConductivity, airViscosityPaS } from './air';
export { cellCount, emptyGrid, type HeatGrid } from './grid';
export { adiabaticWallC, jetFilm, localG, martinF, reynolds, type Jet } from './jet';
export { bestKernel, typescriptKernel, webassemblyKernel, type Kernel } from './kernel';
export { COARSE_MESH, meshBoard, type BoardMesh } from './mesh';
export {
  asPlacing,
  heatPlanSchema,
  heatStepSchema,
  nozzleFor,
  planSeconds,
  startingPlan,
  type HeatPlan,
  type HeatStep,
} from './plan';
export { coversPlan, familyOf, reduceFamily, type ReducedModel } from './reduced';
export { ReducedRunner } from './reduced-runner';
export { simulateHeat, stepLengths, type HeatCurves, type HeatRun, type PartCurve } from './simulate';
export { HeatSolver, type Films } from './solver';
export { airOver } from './films';
export {
  EFFICIENCY_SHARE,
  NOMINAL_STATION,
  multiplierAt,
  outletSteadyC,
  stationSchema,
  stationsInDoubt,
  withMultiplier,
  type Station,
} from './station';
export {
  LIFT_AFTER_S,
  RAMP_LIMIT_C_PER_S,
  SMALL_KINDS,
  crossing,
  judgeHeat,
  type HeatVerdict,
  type NeighbourVerdict,
} from './verdict';
export { evenField, type EvenField } from './field';
export { applyPlanEdit, planFor, type PlanEdit } from './plan-edit';
export { completePlanEntry, PAGE_LINES, parsePlanEntry, PLAN_GRAMMAR, type PlanEntry } from './plan-lines';
export { aimPlan, type AimedPlan } from './aim';
export {
  GOALS_BY_ALLOY,
  goalSetsSchema,
  heatGoalsSchema,
  packageCeilingC,
  type GoalSets,
  type HeatGoals,
} from './goals';
export { foreignPlan, parseForeign, type ForeignSettings } from './foreign';
export { GUESSED_DOUBT, guessed, translatePlan, type Translation } from './translate';
export { marginOf, type Margin } from './margin';
export { judgedRunner, scoreOf } from './family';
export { searchPlan, type FoundPlan } from './search';
export {
  PURPOSES,
  PURPOSE_WORDS,
  UNDERFILLS,
  UPPER_BOARD,
  withCopper,
  workplaceOf,
  type Purpose,
  type UnderfillKind,
  type Stack,
} from './purpose';
export { adviceOn, type Advice } from './advice';
export { curvesCsv, planLink, planOfLink } from './share';

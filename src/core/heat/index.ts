export { emptyGrid, type HeatGrid } from './grid';
export { typescriptKernel, webassemblyKernel, type Kernel } from './kernel';
export { COARSE_MESH, meshBoard } from './mesh';
export { asPlacing, heatPlanSchema, nozzleFor, planSeconds, startingPlan, type HeatPlan, type HeatStep } from './plan';
export { coversPlan, reduceFamily, type ReducedModel } from './reduced';
export { ReducedRunner } from './reduced-runner';
export { simulateHeat, type HeatCurves, type HeatRun } from './simulate';
export { HeatSolver, type Films } from './solver';
export { airOver, BOARD_EMISSIVITY, BOTTOM_NATURAL, TOP_NATURAL } from './films';
export {
  PRIOR_SDS,
  STATION_BOUNDS,
  STATION_UNKNOWNS,
  covarianceOf,
  doubtAxes,
  doubtDirections,
  movedBy,
  spreadOf,
  unknownsOf,
  withUnknowns,
  type StationUnknown,
  type StationUnknowns,
} from './doubt';
export { filmDoubt } from './validity';
export { stepLengths } from './steps';
export { simulateTestBody, testBodySchema } from './test-body';
export { NOMINAL_STATION, multiplierAt, outletSteadyC, stationSchema, withMultiplier, type Station } from './station';
export { heatFinding, shownHeatSchema, shownOf } from './shown';
export { LIFT_AFTER_S, RAMP_LIMIT_C_PER_S, SMALL_KINDS, crossing, judgeHeat, type HeatVerdict } from './verdict';
export { evenField, surfaceAt } from './field';
export { peakRange } from './peak-range';
export { applyPlanEdit, planFor, type PlanEdit } from './plan-edit';
export { completePlanEntry, PAGE_LINES, parsePlanEntry, PLAN_GRAMMAR } from './plan-lines';
export { aimPlan } from './aim';
export { GOALS_BY_ALLOY, goalSetsSchema, heatGoalsSchema, type GoalSets, type HeatGoals } from './goals';
export { foreignPlan, parseForeign } from './foreign';
export { guessed, translatePlan, type Translation } from './translate';
export { marginOf } from './margin';
export { offsetLabel } from './offset-label';
export { judgedRunner, scoreOf } from './family';
export { openingPlan, type OpeningPlan } from './opening';
export { searchPlan, type FoundPlan } from './search';
export {
  PURPOSES,
  PURPOSE_WORDS,
  UNDERFILLS,
  UPPER_BOARD,
  withCopper,
  boardsInDoubt,
  unplacedParts,
  workplaceOf,
  type Purpose,
  type UnderfillKind,
} from './purpose';
export { adviceOn } from './advice';
export { curvesCsv, planLink, planOfLink } from './share';

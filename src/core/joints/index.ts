export { ALLOYS, alloySchema, type AlloyName } from './alloys';
export { collapseBall, type Collapse } from './collapse';
export {
  LEAST_AREA_RATIO,
  areaRatio,
  ballFromPasteMm,
  depositMm3,
  metalVolumeFraction,
  transferEfficiency,
} from './deposit';
export { bestStencil, type BallWanted, type StencilChoice } from './stencil';
export { centrePaste, type CentrePaste } from './centre';
export {
  DEFAULT_SITE_PRACTICE,
  PLASTIC_NEAR_MM,
  cleaningPlan,
  sitePracticeSchema,
  type CleaningStep,
  type SitePractice,
} from './cleaning';
export { judgeFlatness, selfCentring, type Flatness, type HeightReading } from './flatness';
export { judgeLifted, type LiftedPad, type LiftedVerdict } from './lifted';
export { SOLDERS, mixSolders, residueMeltingAt, solderByName, type Mixture, type Portion } from './mixture';
export { judgeReuse, type ArrayLands, type MeasuredBall, type ReballPlan, type ReuseVerdict } from './reball';
export { judgePadLook, type PadLook, type SeenPad } from './pad-look';
export { planSite, type SiteFigure, type SitePlan } from './site';
export { ballHeightMm, coplanarityLimitMm, judgeUniformity, seatingPlane, type Uniformity } from './uniformity';

export { ALLOYS, alloySchema, type AlloyName } from './alloys';
export { collapseBall } from './collapse';
export { areaRatio, ballFromPasteMm, depositMm3, metalVolumeFraction, transferEfficiency } from './deposit';
export {
  DEFAULT_SITE_PRACTICE,
  PLASTIC_NEAR_MM,
  cleaningPlan,
  sitePracticeSchema,
  type CleaningStep,
  type SitePractice,
} from './cleaning';
export { judgeFlatness, selfCentring, type Flatness } from './flatness';
export { judgeLifted, type LiftedVerdict } from './lifted';
export { SOLDERS, mixSolders, residueMeltingAt, solderByName } from './mixture';
export { judgeReuse, type ArrayLands, type ReuseVerdict } from './reball';
export { judgePadLook, type PadLook, type SeenPad } from './pad-look';
export { planSite, type SiteFigure } from './site';

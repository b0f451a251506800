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
export { planSite, type SitePlan } from './site';

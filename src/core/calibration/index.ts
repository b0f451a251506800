export { PROBE_PLACES_MM, blowCoupon, reaches, type CouponRun, type ProbePlace, type Unknowns } from './coupon';
export {
  ALLOY_SD_K,
  BEFORE,
  COUPON_ALLOYS_C,
  DEFAULT_BLOW,
  PROBE_SD_K,
  THRESHOLD_S,
  fitStation,
  meltSdS,
  nextTrial,
  thresholdOf,
  trialWords,
  type AskedTrial,
  type Calibration,
  type Trial,
} from './fit';
export { logOf, wholeSeconds, type ThermoLog } from './log-csv';
export { calibrated, driftOf, trialSchema, type CalibrationRecord } from './trials';
export { calibrationFromMark, type MarkAnswer } from './mark';
export { calibrationFromCurve, type LoggedAnswer, type LoggedCurve } from './logged';
export { loggedBy } from './logged-by';

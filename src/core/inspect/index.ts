export { fullPattern, patternWithout, sitesOf, neighbourPairs, type Site, type SitePattern } from './pattern';
export { balledPart, type BalledPart } from './part';
export { MOST_PIXELS, greyOf, type GreyPicture } from './picture';
export { mapPoint, inverse, type Homography, type Point } from './homography';
export { usefulSidePx } from './find';
export {
  BALL_LIMITS,
  enlarged,
  inspectBalls,
  type BallLimits,
  type BallVerdict,
  type InspectedBall,
  type Inspection,
} from './inspect';
export { HARD, drawScene, type BallSizes, type Trouble } from './scenes';
export { renderScene, type DrawnBall, type Scene } from './render';
export { NO_TALLY, drawCase, tallied, type Tally } from './tally';

export { fullPattern, patternWithout, sitesOf, neighbourPairs, type Site, type SitePattern } from './pattern';
export { balledPart, type BalledPart } from './part';
export { MOST_PIXELS, greyOf, type GreyPicture } from './picture';
export { mapPoint, inverse, scaled as enlargedMap, type Homography, type Point } from './homography';
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
export { sitePads, type SitePad } from './pads';
export {
  USEFUL_PAD_SIDE_PX,
  inspectPads,
  type InspectedPad,
  type PadInspection,
  type PadVerdict,
} from './inspect-pads';
export { drawPadScene, renderPadScene, type PadScene } from './pad-scene';
export { NO_PAD_TALLY, talliedPads } from './pad-tally';

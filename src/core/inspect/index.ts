export { MOST_PIXELS, greyOf, type GreyPicture } from './picture';
export { usefulSidePx } from './find';
export { enlarged, inspectBalls, type Inspection } from './inspect';
export { HARD, drawScene, type BallSizes, type Trouble } from './scenes';
export { renderScene, type Scene } from './render';
export { NO_TALLY, drawCase, scored } from './detection-score';
export { USEFUL_PAD_SIDE_PX, inspectPads, type PadInspection } from './inspect-pads';
export { drawPadScene, renderPadScene } from './pad-scene';
export { NO_PAD_TALLY, talliedPads } from './pad-tally';

export { homographyOf, placeDoubtMm, type Correspondence } from './homography';
export { pxPerMmFor, straightened, type Pixels } from './straighten';
export { seenBodies, type PatternChoice, type SeenBody } from './bodies';

export { homographyOf, placeDoubtMm, type Correspondence } from './homography';
export { photoPlaceSchema, type PhotoPlace } from './place';
export { pxPerMmFor, straightened, type Pixels } from './straighten';
export { seenBodies, type PatternChoice, type SeenBody } from './bodies';

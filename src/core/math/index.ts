export { betaQuantile } from './beta';
export { chiSquareTail } from './chi-square';
export { choleskyOf, invertSpd } from './cholesky';
export { entropyBits } from './entropy';
export { median } from './median';
export { WITHIN_SDS, erfc, normalCdf, normalDraw, normalPdf, normalQuantile } from './normal';
export { counted, shareBelief, shareRange, type ShareBelief, type ShareRange } from './share';
export { studentT } from './student';
export { seededRandom, type Random } from './random';

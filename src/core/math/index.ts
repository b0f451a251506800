export { betaQuantile } from './beta';
export { invertSpd } from './cholesky';
export { entropyBits } from './entropy';
export { erfc, normalCdf, normalDraw, normalPdf } from './normal';
export { studentT } from './student';
export { seededRandom, type Random } from './random';

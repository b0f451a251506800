export { betaQuantile } from './beta';
export { invertSpd } from './cholesky';
export { entropyBits } from './entropy';
export { erfc, normalCdf, normalPdf } from './normal';
export { studentT } from './student';
export { seededRandom, type Random } from './random';

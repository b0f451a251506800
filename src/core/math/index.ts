export { invertSpd } from './cholesky';
export { entropyBits } from './entropy';
export { erfc, normalCdf, normalPdf } from './normal';
export { seededRandom, type Random } from './random';

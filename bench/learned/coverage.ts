import { seededRandom } from '../../src/core/math';
import { coverage } from '../../demo/tests/repeats';
import { note, section } from '../print';

const BENCHES = 4000;

/** Stated 95 % ranges after 500 closed jobs, over many benches. */
section(`What ${BENCHES} benches learned from 500 closed jobs each: ranges that hold the truth (wanted 93 to 97 %)`);
const { faultRates, arrivals, evidence } = coverage(BENCHES, seededRandom(500));
const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
note(`fault rates ${percent(faultRates)}, dead on arrival ${percent(arrivals)}, evidence ${percent(evidence)}`);

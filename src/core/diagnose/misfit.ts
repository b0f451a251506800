import { seededRandom, type Random } from '../math';
import type { Belief } from './belief';
import { likelihood } from './likelihood';
import type { Measurement } from './measurements/registry';
import type { Practice } from './practice';
import type { Prediction } from './prediction';
import type { Reading } from './reading';
import { sampleValue } from './simulate';
import { errorRate } from './practice';

/** How well the best listed explanation fits what was read. */
export interface Misfit {
  /** Probability of readings at least as surprising under it. */
  readonly p: number;
  /** Index of the reading that fits worst, and the probability of one at least as surprising. */
  readonly worst: number;
  readonly worstP: number;
  /** Readings that by themselves are hardly to be expected, worst first. */
  readonly strange: readonly number[];
}

/** Draws of each reading from its own distribution. */
const DRAWS = 2000;
/** Below this the best listed explanation does not fit. */
export const MISFIT_BELOW = 0.01;
/** A reading that is rarer than this under the best explanation is named. Engineering estimate. */
const STRANGE_BELOW = 0.05;

/**
 * Probability of readings at least as surprising as those taken, under the likeliest set of listed faults: the sum of
 * −log p of each, against its own distribution by simulation. Undefined before anything was read.
 */
export function misfitOf(belief: Belief, readings: readonly Reading[], practice: Practice = {}): Misfit | undefined {
  if (readings.length === 0) return undefined;
  const best = bestListed(belief);
  const sums = new Float64Array(DRAWS);
  let sum = 0;
  const own = readings.map((r, i): number => {
    const { table, value } = belief.evidence[i];
    const prediction = table.rows[table.rowOfAll(best.map((f) => table.keyOf[f]))];
    const drawn = surprises(r.measurement, prediction, practice, i);
    const surprise = -Math.log(likelihood(r.measurement, value, prediction, practice));
    sum += surprise;
    let rarer = 0;
    for (let d = 0; d < DRAWS; d++) {
      sums[d] += drawn[d];
      if (drawn[d] >= surprise - ROUNDING) rarer++;
    }
    return rarer / DRAWS;
  });
  let rarer = 0;
  for (const drawn of sums) if (drawn >= sum - ROUNDING) rarer++;
  const order = own.map((_, i) => i).sort((a, b) => own[a] - own[b]);
  const [worst] = order;
  return { p: rarer / DRAWS, worst, worstP: own[worst], strange: order.filter((i) => own[i] < STRANGE_BELOW) };
}

/** Equal surprises count as equal, whatever the last digit says. */
const ROUNDING = 1e-9;

/** The faults of the likeliest hypothesis without anything unlisted. */
function bestListed({ likely, faults }: Belief): number[] {
  const isListed = (f: number): boolean => f === faults.length || faults[f].unlistedAt === undefined;
  const { first, second, pairsEnd, sets } = likely;
  const faultsOf = (k: number): readonly number[] => (k < pairsEnd ? [first[k], second[k]] : sets[k - pairsEnd]);
  let best = -1;
  for (let k = 0; k < likely.p.length; k++) {
    if (best >= 0 && likely.p[k] <= likely.p[best]) continue;
    if (faultsOf(k).every(isListed)) best = k;
  }
  return best < 0 ? [] : faultsOf(best).filter((f) => f < faults.length);
}

/** Surprises of readings drawn from a prediction: kept with it, by the error rate of the kind. */
const kept = new WeakMap<Prediction, Map<string, Float64Array>>();

function surprises(m: Measurement, prediction: Prediction, practice: Practice, nth: number): Float64Array {
  let byKind = kept.get(prediction);
  if (!byKind) kept.set(prediction, (byKind = new Map<string, Float64Array>()));
  const key = `${m.kind} ${errorRate(m.kind, practice)}`;
  let drawn = byKind.get(key);
  if (!drawn) {
    const random: Random = seededRandom(1);
    drawn = Float64Array.from({ length: DRAWS }, () => {
      const slip = random() < errorRate(m.kind, practice);
      return -Math.log(likelihood(m, sampleValue(m, prediction, slip, random), prediction, practice));
    });
    byKind.set(key, drawn);
  }
  // Readings are independent: each is gone through from another place.
  const shift = (nth * 769) % DRAWS;
  return Float64Array.from(drawn, (_, d) => drawn[(d + shift) % DRAWS]);
}

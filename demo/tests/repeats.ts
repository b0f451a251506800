import { counted, normalDraw, shareBelief, shareRange, type Random, type ShareBelief } from '../../src/core/math';
import { SOURCE_WEIGHT, successOf } from '../../src/core/parts';
import { factorRange, kindBelief } from '../../src/core/job';

/** A draw from the Gamma distribution. Source: Marsaglia & Tsang (2000), with their boost for shapes below one. */
function gammaDraw(shape: number, random: Random): number {
  if (shape < 1) return gammaDraw(shape + 1, random) * random() ** (1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = normalDraw(random);
    const v = (1 + c * x) ** 3;
    if (v > 0 && Math.log(1 - random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

function shareDraw({ a, b }: ShareBelief, random: Random): number {
  const x = gammaDraw(a, random);
  return x / (x + gammaDraw(b, random));
}

const countDraw = (share: number, cases: number, random: Random): number => {
  let hits = 0;
  for (let k = 0; k < cases; k++) if (random() < share) hits += 1;
  return hits;
};

const JOBS = 500;

/** Whether each stated range holds the truth after one run of 500 closed jobs. */
export interface Held {
  readonly faultRates: readonly boolean[];
  readonly arrivals: readonly boolean[];
  readonly evidence: readonly boolean[];
}

/** Usual shares of kinds at fault among jobs, from rare to common. */
const USUAL = [0.01, 0.03, 0.08, 0.2, 0.4];

/** One bench's truth is drawn from what is believed before, its 500 jobs from the truth. */
export function oneBench(random: Random): Held {
  const faultRates = USUAL.map((usual) => {
    const share = shareDraw(kindBelief(usual), random);
    const { low, high } = factorRange(countDraw(share, JOBS, random), usual * JOBS, JOBS);
    return share >= low * usual && share <= high * usual;
  });
  const arrivals = [40, 160, 300].map((fitted) => {
    const before = shareBelief(0.03, 20);
    const share = shareDraw(before, random);
    const dead = countDraw(share, fitted, random);
    const { low, high } = shareRange(counted(before, dead, fitted - dead));
    return share >= low && share <= high;
  });
  const evidence = [3, 12, 60].map((reports) => {
    const share = random();
    const outcomes = Array.from({ length: reports }, () => ({ worked: random() < share, source: 'own' as const }));
    const { low, high } = successOf(outcomes, SOURCE_WEIGHT);
    return share >= low && share <= high;
  });
  return { faultRates, arrivals, evidence };
}

/** The shares of ranges that held, kind by kind, over so many benches. */
export function coverage(benches: number, random: Random): Record<keyof Held, number> {
  const held = Array.from({ length: benches }, () => oneBench(random));
  const share = (of: keyof Held): number => {
    const all = held.flatMap((h) => h[of]);
    return all.filter(Boolean).length / all.length;
  };
  return { faultRates: share('faultRates'), arrivals: share('arrivals'), evidence: share('evidence') };
}

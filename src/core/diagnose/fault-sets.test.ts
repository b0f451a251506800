/** Best-first sets against every set there is, on boards cut down to a dozen faults. */
import { smallBoards } from '../../../bench/diagnose/small-boards';
import { seededRandom } from '../math';
import { bestSets } from './fault-sets';
import { OUTSIDE, type Fault } from './faults';
import { likelihood } from './likelihood';
import { boardMeasurements, measurementId } from './measurement';
import { OutcomeTables } from './outcome-tables';
import { Predictor } from './predictor';
import { sampleReading } from './simulate';
import { HypothesisSpace } from './space';

const NONE: ReadonlySet<string> = new Set();
const MOST_FAULTS = 4;

/** Twelve faults of different parts where there are as many, "nothing" among them. */
function someFaults({ faults }: Predictor): Fault[] {
  const nothing = faults.find((f) => f.id === OUTSIDE)!;
  const seen = new Map<string, number>();
  const list = faults.filter((f) => {
    const own = (seen.get(f.ref) ?? 0) + 1;
    seen.set(f.ref, own);
    return f !== nothing && f.seen === undefined && own <= 3;
  });
  return [...list.slice(0, 11), nothing];
}

/** Every set of up to four faults of different parts. */
function everySet(faults: readonly Fault[]): number[][] {
  const sets: number[][] = faults.map((_, i) => [i]);
  for (const set of sets) {
    if (set.length === MOST_FAULTS) continue;
    for (let f = set[set.length - 1] + 1; f < faults.length; f++)
      if (set.every((g) => faults[g].ref !== faults[f].ref)) sets.push([...set, f]);
  }
  return sets.filter((set) => set.length === 1 || set.every((f) => faults[f].id !== OUTSIDE));
}

const together = (faults: readonly Fault[]): Fault => ({
  ...faults[0],
  id: faults.map((f) => f.id).join('+'),
  ref: '',
  effects: faults.flatMap((f) => f.effects),
});

describe.each(smallBoards().map((b) => [b.id, b] as const))('%s', (_, board) => {
  const predictor = new Predictor(board);
  const faults = someFaults(predictor);
  const classes = { of: Uint16Array.from(faults.keys()), members: faults.map((_f, i) => [i]) };
  const space = new HypothesisSpace(faults, classes);
  const prior = space.prior(board, [], {});
  const shares = space.classShares(prior.share);
  const tables = new OutcomeTables(predictor, faults, NONE, NONE);
  const tests = boardMeasurements(board);
  const sets = everySet(faults);

  // The bar: total variation of at most 0.02.
  test.each([1, 2, 3, 4])('with %p faults there the probabilities are those of all sets counted out', (count) => {
    const random = seededRandom(count);
    for (let round = 0; round < 3; round++) {
      const pool = sets.filter((set) => set.length === count);
      const there = pool[Math.floor(random() * pool.length)].map((f) => faults[f]);
      const readings = Array.from({ length: 10 }, () => tests[Math.floor(random() * tests.length)]).map((m) =>
        sampleReading(predictor, m, together(there), random),
      );
      const evidence = readings.map(({ measurement: m, value }) => {
        const table = tables.of(m, measurementId(m));
        const likelihoodOf = (row: number): number => likelihood(m, value, table.rows[row]);
        return { table, likelihoodOf, likelihood: Float64Array.from(table.rows, (_row, i) => likelihoodOf(i)) };
      });
      const p = Float64Array.from(prior.p);
      const log = evidence.reduce((sum, e) => sum + Math.log(space.update(p, e.table, e.likelihood)), 0);
      const found = bestSets(space, (set) => prior.ofSet(set, space, shares), p, evidence, log);
      const total = found.reduce((sum, s) => sum + s.p, 1);
      const got = new Map(found.map((s) => [s.faults.join(' '), s.p / total]));
      space.forEach((h, i, j) => got.set(j < 0 ? `${i}` : `${i} ${j}`, p[h] / total));

      // Slowly: each set by the plain predictor, no table, no search.
      const slow = sets.map((set) => {
        const fault = together(set.map((f) => faults[f]));
        const fits = readings.map((r) =>
          likelihood(r.measurement, r.value, predictor.predict(r.measurement, fault, NONE, NONE)),
        );
        return prior.ofSet(set, space, shares) * fits.reduce((product, l) => product * l, 1);
      });
      const all = slow.reduce((sum, v) => sum + v, 0);
      const apart = sets.reduce((sum, set, k) => sum + Math.abs((got.get(set.join(' ')) ?? 0) - slow[k] / all), 0) / 2;
      expect(apart).toBeLessThan(0.02);
    }
  });
});

/** The tables of pairs against the plain predictor, which is their slow twin. */
import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { FaultCase } from './case';
import type { Fault } from './faults';
import { boardMeasurements, measurementId } from './measurement';
import type { Measurement } from './measurements/registry';
import { solvePower } from './power';
import { PowerSolver } from './power-solver';
import { Predictor } from './predictor';
import type { Prediction } from './prediction';
import { isGone } from './faults';

const NONE = new Set<string>();
const together = (a: Fault, b: Fault | undefined, absent: ReadonlySet<string>, mended: ReadonlySet<string>): Fault => {
  const both = [a, b].filter((f) => f !== undefined && !isGone(f, absent, mended)) as Fault[];
  const effects = both.flatMap((f) => f.effects);
  return {
    id: `twin ${both.map((f) => f.id).join(' ')}`,
    ref: '',
    label: '',
    weight: 0,
    effects,
    mendedBy: { kind: 'nothing' },
  };
};

/** Equal within what a row may round: 0.04 decades of a resistance. */
function expectSame(got: Prediction, want: Prediction, what: string): void {
  // Compared by hand: an expectation for each of a hundred thousand rows took most of the time (measured).
  if (!isSame(got, want)) throw new Error(`${what}: table ${JSON.stringify(got)}, plain ${JSON.stringify(want)}`);
}

function isSame(got: Prediction, want: Prediction): boolean {
  if (got.kind !== 'values' || want.kind !== 'values') return JSON.stringify(got) === JSON.stringify(want);
  if (got.alternatives.length !== want.alternatives.length) return false;
  return got.alternatives.every((alt, i) => {
    const other = want.alternatives[i];
    const apart = alt.means.some((mean, d) => Math.abs(mean - other.means[d]) > 0.045);
    return !apart && Math.abs(alt.weight - other.weight) < 1e-9;
  });
}

describe.each(DEMO_BOARDS)('on %s', (id) => {
  const board = demoBoard(id);
  const predictor = new Predictor(board);
  const faultCase = FaultCase.of(predictor, []);
  const { faults } = predictor;
  // Of contacts that come and go the pairs are mixtures: singles are compared.
  const some = [...faults.keys()].filter((i) => faults[i].seen === undefined);

  function compare(m: Measurement, pairs: number, absent: ReadonlySet<string>, mended: ReadonlySet<string>): void {
    const random = seededRandom(measurementId(m).length + pairs);
    const table = faultCase.table(m, absent, mended);
    for (let k = 0; k < pairs; k++) {
      const i = some[Math.floor(random() * some.length)];
      const j = some[Math.floor(random() * some.length)];
      if (faults[i].ref === faults[j].ref) continue;
      const [lo, hi] = i < j ? [i, j] : [j, i];
      const row = table.rowOf[table.keyOf[lo] * table.keys + table.keyOf[hi]];
      const plain = predictor.predict(m, together(faults[lo], faults[hi], absent, mended), absent, NONE);
      expectSame(table.rows[row], plain, `${measurementId(m)} ${faults[lo].id} + ${faults[hi].id}`);
    }
  }

  test('every single fault reads at every test as the plain predictor says', () => {
    for (const m of boardMeasurements(board)) {
      const table = faultCase.table(m, NONE, NONE);
      faults.forEach((f, i) => {
        const row = table.rowOf[table.keyOf[i] * table.keys];
        expectSame(table.rows[row], predictor.predict(m, f, NONE, NONE), `${measurementId(m)} ${f.id}`);
      });
    }
  });

  test('random pairs do as well', () => {
    for (const m of boardMeasurements(board)) compare(m, 60, NONE, NONE);
  });

  test('and with a part off, and one mended', () => {
    const controller = board.ports[0].controller;
    const mended = new Set([`${board.ports[0].imagePart}/image`]);
    for (const m of boardMeasurements(board)) compare(m, 15, new Set([controller]), mended);
  });

  test('the compiled power rules equal the plain ones for singles and pairs, every supply', () => {
    const random = seededRandom(11);
    for (const port of board.ports) {
      const solver = new PowerSolver(board, port, NONE);
      for (let k = 0; k < 1500; k++) {
        const effects = [0, 1].flatMap(() => faults[Math.floor(random() * faults.length)].effects);
        const side = random() < 0.5 ? 'A' : 'B';
        const pack = random() < 0.5 ? 'in' : 'out';
        const plain = solvePower(board, effects, NONE, { port: port.id, side, pack });
        solver.settle(solver.mark(effects));
        const quick = solver.at(side, pack);
        expect([quick.meter, quick.talks]).toEqual([plain.meter, plain.talks]);
        const isUp = (id: string): number => quick.up[solver.railIds.indexOf(id)] ?? 0;
        expect(board.rails.map((r) => isUp(r.id))).toEqual(
          board.rails.map((r) => Number(plain.railVolts.get(r.id) !== 0)),
        );
      }
    }
  });
});

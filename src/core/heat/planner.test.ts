import { demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { nozzleFor, startingPlan, type HeatPlan } from './plan';
import { reduceFamily } from './reduced';
import { ReducedRunner } from './reduced-runner';
import { bestInFamily } from './family';
import { marginOf } from './margin';
import { COARSE_MESH } from './mesh';
import { simulateHeat } from './simulate';
import { NOMINAL_STATION } from './station';
import { judgeHeat } from './verdict';

/** A sample of the benchmark, which draws whole boards and settings: one family a board here, dials and durations drawn. */
test.each([
  { id: 'heronlog-4-c' as const, ref: 'U4', plateSetC: 120, copper: 0.8 },
  { id: 'marshdesk-2-b' as const, ref: 'U12', plateSetC: null, copper: 1.1 },
])(
  'no plan drawn from the family of $ref has more margin than the planned one @long',
  ({ id, ref, plateSetC, copper }) => {
    const base = demoBoard(id);
    const board = { ...base, layers: base.layers.map((l) => ({ ...l, coverage: Math.min(1, copper * l.coverage) })) };
    const part = board.parts.find((p) => p.ref === ref)!;
    const nozzleMm = nozzleFor(NOMINAL_STATION.nozzlesMm, board.packages[part.package].bodyMm);
    const start: HeatPlan = { ...startingPlan(ref, board.alloy, nozzleMm), plateSetC };
    const found = bestInFamily(board, NOMINAL_STATION, start);
    const runner = new ReducedRunner(reduceFamily(board, NOMINAL_STATION, start, COARSE_MESH));
    const random = seededRandom(21);
    const pick = (list: readonly number[]): number => list[Math.floor(random() * list.length)];
    const inFull = (plan: HeatPlan): number =>
      marginOf(judgeHeat(board, plan, simulateHeat(board, NOMINAL_STATION, plan, { frames: false })!)).marginK;
    const drawn: { plan: HeatPlan; marginK: number }[] = [];
    for (let k = 0; k < 150; k++) {
      const dials = [0, 1, 2].map(() => 100 + 5 * Math.floor(77 * random())).sort((a, b) => a - b);
      const seconds = [pick([20, 40, 60]), pick([20, 40, 60]), pick([12, 18, 22, 26, 36])];
      const steps = start.steps.map((s, i) =>
        s.airSetC === null ? s : { ...s, airSetC: dials[Math.min(i, 2)], durationS: seconds[i] ?? s.durationS },
      );
      const plan = { ...start, steps };
      drawn.push({ plan, marginK: marginOf(judgeHeat(board, plan, runner.run(plan))).marginK });
    }
    const best = drawn.sort((a, b) => b.marginK - a.marginK).slice(0, 8);
    expect(found.marginK).toBeGreaterThanOrEqual(Math.max(...best.map(({ plan }) => inFull(plan))));
    // In a tenth of the runs of the long search that the benchmark makes (20,000).
    expect(found.runs).toBeLessThan(2000);
    expect(inFull(found.plan)).toBeCloseTo(found.marginK, 6);
  },
);

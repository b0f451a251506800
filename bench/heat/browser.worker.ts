import type { Board } from '../../src/core/board';
import { NOMINAL_STATION, aimPlan, judgeHeat, judgedRunner, simulateHeat, startingPlan } from '../../src/core/heat';

/** What the page asks for: one run on a mesh, or plans of one family on the reduced model as a drag asks for them. */
export type HeatWorkerRequest =
  | { readonly kind: 'run'; readonly board: Board; readonly mesh: object }
  | { readonly kind: 'drag'; readonly board: Board; readonly times: number };

export interface HeatWorkerReply {
  readonly cells: number;
  /** What aiming took before the first run, ms: so the application's worker begins. */
  readonly aimMs: number;
  /** Each run's time, ms. */
  readonly tookMs: readonly number[];
}

const RUNS = 5;
const PLAN_S = 180;

self.onmessage = ({ data }: MessageEvent<HeatWorkerRequest>): void => {
  const { board } = data;
  const first = startingPlan('U4', board.alloy, 4);
  if (data.kind === 'run') {
    const rest = PLAN_S - first.steps.slice(0, -1).reduce((s, step) => s + step.durationS, 0);
    const plan = { ...first, steps: [...first.steps.slice(0, -1), { ...first.steps[4], durationS: rest }] };
    let cells = 0;
    const began = performance.now();
    aimPlan(board, NOMINAL_STATION, first);
    const aimMs = performance.now() - began;
    const tookMs = Array.from({ length: RUNS }, () => {
      const start = performance.now();
      cells = simulateHeat(board, NOMINAL_STATION, plan, { ...data.mesh, frames: false })!.cells;
      return performance.now() - start;
    });
    self.postMessage({ cells, aimMs, tookMs } satisfies HeatWorkerReply);
    return;
  }
  const runner = judgedRunner(board, NOMINAL_STATION, first, {});
  const tookMs = Array.from({ length: data.times }, (_, k) => {
    // Every dial for the first time, as a hand that drags one further and further.
    const steps = first.steps.map((s, i) => (i === 2 ? { ...s, airSetC: 200 + 2 * k } : s));
    const plan = { ...first, steps };
    const start = performance.now();
    judgeHeat(board, plan, runner.run(plan));
    return performance.now() - start;
  });
  self.postMessage({ cells: 0, aimMs: 0, tookMs } satisfies HeatWorkerReply);
};

import type { Board } from '../../src/core/board';
import {
  NOMINAL_STATION,
  judgeHeat,
  judgedRunner,
  marginOf,
  nozzleFor,
  scoreOf,
  searchPlan,
  simulateHeat,
  startingPlan,
  type HeatPlan,
  type Station,
} from '../../src/core/heat';
import { seededRandom, type Random } from '../../src/core/math';
import { DEMO_BOARDS, demoBoard } from '../../demo/files';
import { note, ratio, section } from '../print';

const TRIES = 20_000;
const FAMILIES = 16;
const COARSE = { fineMm: 1, growth: 1.5, coarsestMm: 5 };
/** Of the random plans the best on the reduced model are judged by the full solver. */
const JUDGED = 8;

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)];

/** A demo board of another thickness and copper, with some parts gone, and a station of other strength. */
function draw(seed: number): { board: Board; station: Station; start: HeatPlan; random: Random } {
  const random = seededRandom(seed);
  const base = demoBoard(DEMO_BOARDS[seed % 2]);
  const chips = base.parts.filter((p) => base.packages[p.package].lands.kind === 'quad');
  const worked = pick(chips, random);
  const copper = 0.6 + 0.6 * random();
  const board: Board = {
    ...base,
    thicknessMm: 0.6 + 0.8 * random(),
    layers: base.layers.map((l) => ({ ...l, coverage: Math.min(1, copper * l.coverage) })),
    parts: base.parts.filter((p) => p.ref === worked.ref || random() < 0.8),
  };
  const station: Station = {
    ...NOMINAL_STATION,
    outletEfficiency: 0.75 + 0.2 * random(),
    multiplier: 0.55 + 0.4 * random(),
    outletLagS: 4 + 5 * random(),
    plate: random() < 0.7 ? NOMINAL_STATION.plate : null,
  };
  const nozzleMm = nozzleFor(station.nozzlesMm, board.packages[worked.package].bodyMm);
  return { board, station, start: startingPlan(worked.ref, board.alloy, nozzleMm), random };
}

/** A cover on the neighbour that stands in the way of the plan that everybody begins with. */
function guardOf({ board, station, start }: ReturnType<typeof draw>): string[] {
  const { neighbours } = judgeHeat(board, start, simulateHeat(board, station, start, { ...COARSE, frames: false })!);
  const [worst] = [...neighbours].sort((a, b) => a.limitC - a.peakC - (b.limitC - b.peakC));
  return worst ? [worst.ref] : [];
}

/** Plans of the same kind as the planner's, drawn: settings, guards, rising dials, durations. */
function randomSearch(
  { board, station, start, random }: ReturnType<typeof draw>,
  covers: readonly (readonly string[])[],
): number {
  const found: { plan: HeatPlan; marginK: number }[] = [];
  const [low, high] = station.setC;
  const flow = start.steps[0].flowLpm;
  for (let f = 0; f < FAMILIES; f++) {
    const [flowLpm, endMm] = [pick([0.7, 1, 1.4], random) * flow, pick([6, 8, 12], random)];
    const family: HeatPlan = {
      ...start,
      plateSetC: station.plate ? pick([null, 80, 120, 150], random) : null,
      nozzleMm: pick(
        station.nozzlesMm.filter((n) => Math.abs(n - start.nozzleMm) <= 2),
        random,
      ),
      covers: [...pick(covers, random)],
      steps: start.steps.map((s, i) =>
        s.airSetC === null ? s : { ...s, flowLpm: Math.round(flowLpm / 2) * 2, heightMm: i < 2 ? s.heightMm : endMm },
      ),
    };
    const runner = judgedRunner(board, station, family, COARSE);
    for (let k = 0; k < TRIES / FAMILIES; k++) {
      const dials = [0, 1, 2].map(() => Math.round((low + (high - low) * random()) / 5) * 5).sort((a, b) => a - b);
      const seconds = [pick([20, 40, 60], random), pick([20, 40, 60], random), pick([12, 18, 22, 26, 36], random)];
      const plan: HeatPlan = {
        ...family,
        steps: family.steps.map((s, i) =>
          s.airSetC === null ? s : { ...s, airSetC: dials[Math.min(i, 2)], durationS: seconds[i] ?? s.durationS },
        ),
      };
      found.push({ plan, marginK: scoreOf({ plan, ...marginOf(judgeHeat(board, plan, runner.run(plan))) }) });
    }
    found.sort((a, b) => b.marginK - a.marginK).splice(JUDGED);
  }
  return Math.max(...found.map(({ plan }) => worthOf(board, station, plan)));
}

const fullMargin = (board: Board, station: Station, plan: HeatPlan): number =>
  marginOf(judgeHeat(board, plan, simulateHeat(board, station, plan, { frames: false })!)).marginK;

/** The margin by the full solver, less what covers cost in trouble: what the planner looks for. */
const worthOf = (board: Board, station: Station, plan: HeatPlan): number =>
  scoreOf({ plan, marginK: fullMargin(board, station, plan) });

/** The planner against a long random search on random boards and stations. */
function benchPlanner(boards: number, first: number): void {
  section(
    `Planner on ${boards} random boards and stations against ${TRIES.toLocaleString('en')} random plans each; a cover counts 1 K`,
  );
  let [feasible, missed, behind, solves, broken] = [0, 0, 0, 0, 0];
  const gains: number[] = [];
  for (let k = first; k < first + boards; k++) {
    const world = draw(k);
    const start = performance.now();
    const found = searchPlan(world.board, world.station, world.start)!;
    const planned = performance.now();
    const checked = fullMargin(world.board, world.station, found.plan);
    const worth = worthOf(world.board, world.station, found.plan);
    const random = randomSearch(world, [[], guardOf(world), found.plan.covers]);
    if (random >= 0) feasible += 1;
    if (random >= 0 && checked < 0) missed += 1;
    if (random >= 0 && worth < random) behind += 1;
    if (checked < found.marginK - 0.01) broken += 1;
    solves += found.runs / boards;
    gains.push(worth - random);
    note(
      `${k}: planner ${worth.toFixed(1)} K, random ${random.toFixed(1)} K, ${found.runs} runs, ${((planned - start) / 1000).toFixed(0)} s against ${((performance.now() - planned) / 1000).toFixed(0)} s`,
    );
  }
  note(
    `random search finds a plan on ${feasible}; there the planner misses ${missed} and has less margin on ${behind}`,
  );
  note(`plans whose full run breaks the stated margin: ${broken}`);
  note(`margin over the random search, middle: ${gains.sort((a, b) => a - b)[boards >> 1].toFixed(1)} K`);
  ratio('runs of the reduced model, planner / random', solves / TRIES, 'at most 0.1');
}

/** How many boards, and the first one: a long run can be split. */
benchPlanner(Number(process.argv[2] ?? 50), Number(process.argv[3] ?? 0));

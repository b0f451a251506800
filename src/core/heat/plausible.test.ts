import type { Board } from '../board';
import { demoBoard } from '../../../demo/files';
import { startingPlan, type HeatPlan } from './plan';
import { simulateHeat } from './simulate';
import { NOMINAL_STATION } from './station';
import { crossing } from './verdict';

/**
 * Common practice: what hot air does to a chip in the middle of a bare board of 70 × 60 mm on the nominal station. Ten layers
 * of 18 µm, 60 %, in 0.8 mm; bodies from 0.5 mm (thin packages) to 0.85 mm. 6 mm nozzle, 30 l/min, 12 mm.
 */
const layers = (copperUm: number, coverage: number): Board['layers'] =>
  Array.from({ length: 10 }, (_, i) => ({ name: `L${i + 1}`, copperUm, coverage }));

function boardWith(bodyMm: number, heightMm: number, more: Partial<Board> = {}): Board {
  const board = demoBoard('heronlog-4-c');
  const chip = board.parts.find((p) => p.ref === 'U4')!;
  const pkg = board.packages[chip.package];
  // The lands keep their distance from the body's edge.
  const grown = bodyMm - pkg.bodyMm[0];
  const quad = pkg.lands as Extract<typeof pkg.lands, { kind: 'quad' }>;
  const lands = { ...quad, spanMm: [quad.spanMm[0] + grown, quad.spanMm[1] + grown] as [number, number] };
  return {
    ...board,
    thicknessMm: 0.8,
    layers: layers(18, 0.6),
    outlineMm: [
      [0, 0],
      [70, 0],
      [70, 60],
      [0, 60],
    ],
    parts: [{ ...chip, xMm: 35, yMm: 30 }],
    packages: { ...board.packages, [chip.package]: { ...pkg, bodyMm: [bodyMm, bodyMm], heightMm, lands } },
    ...more,
  };
}

const dial = (airSetC: number, more: Partial<HeatPlan> = {}, flowLpm = 30): HeatPlan => ({
  ...startingPlan('U4', 'SAC305', 6),
  steps: [{ name: 'heat', durationS: 120, airSetC, flowLpm, heightMm: 12 }],
  ...more,
});

const coldest = (board: Board, plan: HeatPlan) => {
  const run = simulateHeat(board, NOMINAL_STATION, plan, { frames: false })!;
  return { timesS: run.timesS, joint: run.parts[0].jointMinC };
};

/** Seconds until the coldest joint reaches a temperature; null when it never does. */
function secondsTo(tempC: number, board: Board, plan: HeatPlan): number | null {
  const { timesS, joint } = coldest(board, plan);
  return crossing(timesS, joint, tempC);
}

function expectWithin(value: number | null, from: number, to: number): void {
  expect(value).not.toBeNull();
  expect(value!).toBeGreaterThan(from);
  expect(value!).toBeLessThan(to);
}

describe.each([4, 5.5, 7])('a %p mm chip', (bodyMm) => {
  test('reaches 220 °C in 29 to 49 s at 375 and in 19 to 34 s at 400', () => {
    for (const heightMm of [0.5, 0.85]) {
      expectWithin(secondsTo(220, boardWith(bodyMm, heightMm), dial(375)), 29, 49);
      expectWithin(secondsTo(220, boardWith(bodyMm, heightMm), dial(400)), 19, 34);
    }
  });

  test('in a thin package reaches 183 °C in 11 to 21 s at 375', () => {
    expectWithin(secondsTo(183, boardWith(bodyMm, 0.5), dial(375)), 11, 21);
  });

  test('never melts at 230: it stays at about 147 °C', () => {
    const { joint } = coldest(boardWith(bodyMm, 0.7), dial(230));
    expectWithin(joint[120], 137, 157);
  });
});

test('heavy copper (10 × 35 µm, 85 %, 1.2 mm) more than doubles the time', () => {
  const heavy = boardWith(6, 0.85, { thicknessMm: 1.2, layers: layers(35, 0.85) });
  expect(secondsTo(220, heavy, dial(375))!).toBeGreaterThan(2 * secondsTo(220, boardWith(6, 0.85), dial(375))!);
});

test('a 15 mm chip over a plate at 120 °C with a 10 mm nozzle and 50 l/min takes 44 to 70 s at 350 to 360', () => {
  for (const airSetC of [350, 360])
    expectWithin(secondsTo(220, boardWith(15, 1), dial(airSetC, { nozzleMm: 10, plateSetC: 120 }, 50)), 44, 70);
});

test('at 350 without a plate a 7 mm chip takes over a minute, if it gets there at all', () => {
  expect(secondsTo(220, boardWith(7, 0.85), dial(350)) ?? Infinity).toBeGreaterThan(60);
});

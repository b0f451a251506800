import type { Command } from 'commander';
import { partByRef } from '../core/board';
import {
  NOMINAL_STATION,
  aimPlan,
  heatPlanSchema,
  judgeHeat,
  nozzleFor,
  simulateHeat,
  startingPlan,
  stationSchema,
} from '../core/heat';
import { InputProblem, print, readBoard, readJson } from './input';

interface SimulateOptions {
  readonly part?: string;
  readonly plan?: string;
  readonly station?: string;
  readonly curves?: boolean;
}

export function addHeatCommands(root: Command): void {
  const heat = root.command('heat').description('hot air and plate on a board');
  heat
    .command('simulate <board.json>')
    .description('runs a plan, or a starting plan aimed at the part, and judges it')
    .option('--part <ref>', 'the part to work on, when no plan is given')
    .option('--plan <plan.json>', 'a heat plan')
    .option('--station <station.json>', 'a station; the nominal one when left out')
    .option('--curves', 'print the joint curves too')
    .action((boardFile: string, options: SimulateOptions) => simulate(boardFile, options));
}

function simulate(boardFile: string, options: SimulateOptions): void {
  const board = readBoard(boardFile);
  const station = options.station ? readJson(options.station, stationSchema) : NOMINAL_STATION;
  const ref = options.plan ? readJson(options.plan, heatPlanSchema).partRef : options.part;
  const part = ref ? partByRef(board, ref.toUpperCase()) : undefined;
  if (!part) throw new InputProblem(`Expected --part or --plan to name a part of ${board.id}; got "${ref ?? ''}".`);
  const plan = options.plan
    ? readJson(options.plan, heatPlanSchema)
    : aimPlan(
        board,
        station,
        startingPlan(part.ref, board.alloy, nozzleFor(station.nozzlesMm, board.packages[part.package].bodyMm)),
      ).plan;
  const run = simulateHeat(board, station, plan, { frames: false })!;
  const curves = options.curves
    ? {
        timesS: [...run.timesS],
        parts: run.parts.map((p) => ({ ref: p.ref, coldestJointC: [...p.jointMinC], hottestJointC: [...p.jointMaxC] })),
      }
    : undefined;
  print({ plan, station: station.id, verdict: judgeHeat(board, plan, run), energyError: run.energyError, curves });
}

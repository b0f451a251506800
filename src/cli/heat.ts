import type { Command } from 'commander';
import Papa from 'papaparse';
import { partByRef, partNamed, type Board } from '../core/board';
import { calibrated, fitStation, nextTrial, trialSchema, trialWords } from '../core/calibration';
import {
  NOMINAL_STATION,
  PURPOSES,
  aimPlan,
  foreignPlan,
  guessed,
  heatPlanSchema,
  judgeHeat,
  nozzleFor,
  parseForeign,
  peakRange,
  planFor,
  searchPlan,
  simulateHeat,
  simulateTestBody,
  startingPlan,
  stationSchema,
  surfaceAt,
  testBodySchema,
  translatePlan,
  workplaceOf,
  type HeatPlan,
  type Purpose,
  type Station,
} from '../core/heat';
import { InputProblem, complain, print, readBoard, readJson } from './input';

interface SimulateOptions {
  readonly part?: string;
  readonly for?: string;
  readonly plan?: string;
  readonly station?: string;
  readonly curves?: boolean;
  readonly csv?: boolean;
  readonly point?: readonly string[];
}

export function addHeatCommands(root: Command): void {
  const heat = root.command('heat').description('hot air and plate on a board');
  heat
    .command('simulate <board.json>')
    .description('runs a plan, or a starting plan aimed at the part, and judges it')
    .option('--part <ref>', 'the part to work on, when no plan is given')
    .option('--for <purpose>', `what it is for: ${PURPOSES.join(', ')}; lift when left out`)
    .option('--plan <plan.json>', 'a heat plan')
    .option('--station <station.json>', 'a station; the nominal one when left out')
    .option('--curves', 'print the joint curves too')
    .option('--csv', 'print nothing but the curves of all parts and named points, as CSV, one row a second')
    .option(
      '--point <name,x,y>',
      'a point of the board’s surface, mm, among the curves; again for more',
      (text: string, more: string[]) => [...more, text],
      [] as string[],
    )
    .action((boardFile: string, options: SimulateOptions) => simulate(boardFile, options));
  heat
    .command('body <body.json>')
    .description('a plain plate with blocks and films of known conductance, no jet: for checks against other programs')
    .option('--csv', 'as CSV, one row a second')
    .action((file: string, { csv }: { csv?: boolean }) => {
      const run = simulated(() => simulateTestBody(readJson(file, testBodySchema)));
      if (csv) printCsv(run.timesS, run.columns);
      else print(run);
    });
  heat
    .command('search <board.json>')
    .description('the plan with the most margin: plate, nozzle, flow, height, pace, covers')
    .requiredOption('--part <ref>', 'the part to work on')
    .option('--station <station.json>', 'a station; the nominal one when left out')
    .action((boardFile: string, options: SimulateOptions) => {
      const board = readBoard(boardFile);
      const station = stationOf(options.station);
      print(searchPlan(board, station, startOf(board, station, options.part)));
    });
  heat
    .command('calibrate <trials.json>')
    .description(
      'what trials of the melt coupon or thermocouple logs say of a station, and which trial would help most',
    )
    .option('--station <station.json>', 'the station; the nominal one when left out')
    .option('--board <board.json>', 'with --plan: the range of its joint’s peak on the station as found')
    .option('--plan <plan.json>', 'a heat plan for that board')
    .action((trialsFile: string, options: SimulateOptions & { board?: string }) => {
      const trials = readJson(trialsFile, trialSchema.array());
      const station = stationOf(options.station);
      const next = trialWords(nextTrial(station, trials));
      const fit = fitStation(station, trials);
      if (!fit.ok) return complain(fit.problems);
      const flowLpm = fit.value.atFlowLpm ?? station.flowLpm[0];
      const found = calibrated(station, { calibration: fit.value, flowLpm });
      print({ station: station.id, ...fit.value, next, ...rangeOf(found, options) });
    });
  heat
    .command('translate <board.json> <settings>')
    .description('somebody else’s settings, such as "350 at 80 %, 8 mm, 60 s", for a station of yours')
    .requiredOption('--part <ref>', 'the part to work on')
    .option('--from <station.json>', 'their station; a typical one, with its doubt, when left out')
    .option('--station <station.json>', 'yours; the nominal one when left out')
    .action((boardFile: string, text: string, options: SimulateOptions & { from?: string }) => {
      const board = readBoard(boardFile);
      const settings = parseForeign(text);
      if (!settings.ok) return complain(settings.problems);
      const ours = stationOf(options.station);
      const theirs = options.from ? stationOf(options.from) : guessed(NOMINAL_STATION);
      const plan = foreignPlan(settings.value, theirs, startOf(board, ours, options.part));
      print({ assumed: settings.value.assumed, ...translatePlan(board, theirs, ours, plan) });
    });
}

const stationOf = (file: string | undefined): Station => (file ? readJson(file, stationSchema) : NOMINAL_STATION);

/** @throws when there is no such purpose. */
function purposeOf(name = 'lift'): Purpose {
  const found = PURPOSES.find((p) => p === name);
  if (!found) throw new InputProblem(`Expected --for with one of ${PURPOSES.join(', ')}; got "${name}".`);
  return found;
}

/** A starting plan for a part that is named on the line. */
function startOf(board: Board, station: Station, ref: string | undefined): HeatPlan {
  const part = ref ? partNamed(board, ref) : undefined;
  if (!part) throw new InputProblem(`Expected --part or --plan to name a part of ${board.id}; got "${ref ?? ''}".`);
  return startingPlan(part.ref, board.alloy, nozzleFor(station.nozzlesMm, board.packages[part.package].bodyMm));
}

/** The stated range of a plan's peak on a station; nothing where no plan is named. */
function rangeOf(station: Station, { board: boardFile, plan: planFile }: { board?: string; plan?: string }): object {
  if (!boardFile && !planFile) return {};
  if (!boardFile || !planFile) throw new InputProblem('Expected --board and --plan together; got one of them.');
  const plan = readJson(planFile, heatPlanSchema);
  const board = workplaceOf(readBoard(boardFile), plan);
  return { peak: peakRange(board, station, onBoard(board, plan)) };
}

function simulate(boardFile: string, options: SimulateOptions): void {
  const whole = readBoard(boardFile);
  const station = stationOf(options.station);
  const start = options.plan
    ? readJson(options.plan, heatPlanSchema)
    : planFor(whole, station, startOf(whole, station, options.part), purposeOf(options.for));
  const board = workplaceOf(whole, start);
  const plan = options.plan ? onBoard(board, start) : aimPlan(board, station, start).plan;
  const points = (options.point ?? []).map(pointOf);
  const run = simulateHeat(board, station, plan, { frames: points.length > 0 })!;
  const surface = points.map(({ name, xMm, yMm }) => ({
    name,
    tempsC: simulated(() => surfaceAt(run, xMm, yMm)),
  }));
  if (options.csv) {
    const parts = run.parts.flatMap((p) => [
      { name: `${p.ref} coldest joint`, tempsC: [...p.jointMinC] },
      { name: `${p.ref} mean joint`, tempsC: [...p.jointMeanC] },
      { name: `${p.ref} hottest joint`, tempsC: [...p.jointMaxC] },
      { name: `${p.ref} hottest of the body`, tempsC: [...p.bodyMaxC] },
    ]);
    return printCsv([...run.timesS], [...surface, ...parts]);
  }
  const curves = options.curves
    ? {
        timesS: [...run.timesS],
        points: surface,
        parts: run.parts.map((p) => ({ ref: p.ref, coldestJointC: [...p.jointMinC], hottestJointC: [...p.jointMaxC] })),
      }
    : undefined;
  print({ plan, station: station.id, verdict: judgeHeat(board, plan, run), energyError: run.energyError, curves });
}

function onBoard(board: Board, plan: HeatPlan): HeatPlan {
  if (partByRef(board, plan.partRef)) return plan;
  throw new InputProblem(`Expected --part or --plan to name a part of ${board.id}; got "${plan.partRef}".`);
}

function pointOf(text: string): { name: string; xMm: number; yMm: number } {
  const [name, x, y] = text.split(',');
  if (!name || y === undefined || ![x, y].every((v) => v.trim() !== '' && Number.isFinite(Number(v))))
    throw new InputProblem(`Expected --point as name,x,y in mm, such as fuse,31.5,12; got "${text}".`);
  return { name, xMm: Number(x), yMm: Number(y) };
}

/** What the input is to blame for is said as a problem of the input. */
function simulated<T>(run: () => T): T {
  try {
    return run();
  } catch (error) {
    throw error instanceof Error && error.message.startsWith('Expected') ? new InputProblem(error.message) : error;
  }
}

function printCsv(timesS: readonly number[], columns: readonly { name: string; tempsC: readonly number[] }[]): void {
  const rows = timesS.map((time_s, i) => ({
    time_s,
    ...Object.fromEntries(columns.map((c) => [`${c.name}, °C`, c.tempsC[i].toFixed(3)])),
  }));
  process.stdout.write(`${Papa.unparse(rows, { newline: '\n', escapeFormulae: true })}\n`);
}

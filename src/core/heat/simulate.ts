import type { PartRef } from '../identities';
import type { Board } from '../board';
import { stepFilms } from './films';
import { typescriptKernel } from './kernel';
import { cellCount } from './grid';
import { MeltingLayer, latentOf } from './latent';
import { solderThicknessM } from './materials';
import { meshBoard, type BoardMesh, type MeshOptions, type PartCells } from './mesh';
import { planSeconds, type HeatPlan } from './plan';
import { HeatSolver } from './solver';
import { stepLengths } from './steps';
import { outletSteadyC, plateSteadyC, type Station } from './station';

export interface PartCurve {
  readonly ref: PartRef;
  /** Joint temperatures at every sample, °C. */
  readonly jointMinC: Float32Array;
  readonly jointMeanC: Float32Array;
  readonly jointMaxC: Float32Array;
  /** Hottest place of the body. */
  readonly bodyMaxC: Float32Array;
}

/** Curves at whole seconds. */
export interface HeatCurves {
  readonly timesS: Float32Array;
  readonly parts: readonly PartCurve[];
}

export interface HeatRun extends HeatCurves {
  /** Board surface under the air, one frame per sample, ny × nx; NaN where most of a cell lies outside the outline. */
  readonly frames: readonly Float32Array[];
  readonly xEdgesMm: Float64Array;
  readonly yEdgesMm: Float64Array;
  readonly cells: number;
  /** Heat that came in against heat that was stored, as a share: the solver's own check. */
  readonly energyError: number;
}

export interface RunOptions extends MeshOptions {
  readonly frames?: boolean;
  /** The hot loops in plain TypeScript; where it is not said, the fastest that runs here. */
  readonly kernel?: 'typescript';
  /** Without the heat that melting takes, as reduced models are. */
  readonly meltless?: boolean;
  /** Called about once a simulated second; return false to stop early. */
  readonly onProgress?: (doneS: number, totalS: number) => boolean | void;
}

/**
 * Runs a heat plan on a board: hot air over the worked part, an optional plate below.
 * @returns undefined when `onProgress` asked to stop.
 * @throws when the plan's part is not on the board.
 */
export function simulateHeat(
  board: Board,
  station: Station,
  plan: HeatPlan,
  options: RunOptions = {},
): HeatRun | undefined {
  const mesh = meshBoard(board, plan.partRef, { ...options, ...meshedFor(plan) });
  const record = new Recorder(mesh, options.frames ?? true);
  const totalS = planSeconds(plan);
  const each = ({ timeS, solver }: Moment): boolean => {
    record.sample(timeS, solver);
    return timeS === 0 || options.onProgress?.(timeS, totalS) !== false;
  };
  const ended = runPlan(board, station, plan, mesh, each, options);
  return ended && { ...record.result(), cells: cellCount(mesh.grid), energyError: ended.energyError };
}

/** How the worked part lies in the mesh for a plan's purpose. */
export const meshedFor = ({ purpose }: HeatPlan): MeshOptions => ({
  bare: purpose === 'site',
  ballsUp: purpose === 'reball',
});

export interface Moment {
  readonly timeS: number;
  readonly solver: HeatSolver;
}

/**
 * Steps a plan on a mesh that is made already.
 * @param each is called at the start and at every whole second; it returns false to stop.
 */
export function runPlan(
  board: Board,
  station: Station,
  plan: HeatPlan,
  mesh: BoardMesh,
  each: (moment: Moment) => boolean | void,
  { kernel, meltless = false }: Pick<RunOptions, 'kernel' | 'meltless'> = {},
): { readonly energyError: number } | undefined {
  const solver = new HeatSolver(mesh.grid, plan.ambientC, kernel && typescriptKernel());
  const joints = meltless ? undefined : jointsOf(mesh, board, plan, solver);
  const plateGoal = plateGoalC(station, plan);
  const air = { outletC: plan.ambientC, plateC: plan.plateReady ? plateGoal : plan.ambientC };
  let timeS = 0;
  each({ timeS, solver });
  for (const step of plan.steps) {
    const { films, topShare } = stepFilms(board, mesh, station, plan, step);
    const moving = { ambientC: plan.ambientC, topShare };
    const outletGoalC =
      step.airSetC === null ? plan.ambientC : outletSteadyC(station, step.airSetC, step.flowLpm, plan.ambientC);
    solver.setFilms(films);
    for (const stepS of stepLengths(step.durationS)) {
      follow(air, outletGoalC, plateGoal, station, stepS / 2);
      const below = plan.plateSetC === null ? plan.ambientC : air.plateC;
      solver.setAir(moving, air.outletC - plan.ambientC, below);
      solver.step(stepS);
      joints?.settle();
      follow(air, outletGoalC, plateGoal, station, stepS / 2);
      const whole = Math.floor(timeS + stepS + 1e-6) > Math.floor(timeS + 1e-6);
      timeS += stepS;
      if (whole && each({ timeS, solver }) === false) return undefined;
    }
  }
  const { inJ, turnoverJ } = solver.heatBalance();
  const stored = solver.storedJ(plan.ambientC) + (joints?.latentJ() ?? 0);
  return { energyError: Math.abs(stored - inJ) / Math.max(turnoverJ, 1e-9) };
}

/** The worked part's joints, where they may melt: under a part that is a layer of its own. */
function jointsOf(mesh: BoardMesh, board: Board, plan: HeatPlan, solver: HeatSolver): MeltingLayer | undefined {
  const worked = mesh.parts.find((p) => p.part.ref === plan.partRef);
  if (!worked?.meshed || worked.ballsUp) return undefined;
  const { lands } = board.packages[worked.part.package];
  const solderM = solderThicknessM(lands.kind === 'array' ? lands.ballMm : undefined);
  return new MeltingLayer(mesh, worked.bodyColumns, solver, latentOf(plan.alloy, solderM));
}

/** Where the plate settles; the room where there is none. */
export function plateGoalC(station: Station, plan: HeatPlan): number {
  if (plan.plateSetC === null || !station.plate) return plan.ambientC;
  return plateSteadyC(plan.plateSetC, plan.ambientC, station.plate.capC);
}

/** Outlet and plate run after their set points with first-order lags. */
function follow(
  air: { outletC: number; plateC: number },
  outletGoalC: number,
  plateGoalC: number,
  station: Station,
  dt: number,
): void {
  const outletLag = Math.max(station.outletLagS, 1e-3);
  air.outletC = outletGoalC + (air.outletC - outletGoalC) * Math.exp(-dt / outletLag);
  if (station.plate) air.plateC = plateGoalC + (air.plateC - plateGoalC) * Math.exp(-dt / station.plate.lagS);
}

class Recorder {
  private readonly times: number[] = [];
  private readonly curves: { cells: PartCells; min: number[]; mean: number[]; max: number[]; body: number[] }[];
  private readonly frames: Float32Array[] = [];
  private readonly plane: number;

  constructor(
    private readonly mesh: BoardMesh,
    private readonly keepFrames: boolean,
  ) {
    this.plane = mesh.grid.nx * mesh.grid.ny;
    this.curves = mesh.parts
      .filter((p) => p.jointColumns.length > 0)
      .map((cells) => ({ cells, min: [], mean: [], max: [], body: [] }));
  }

  sample(timeS: number, solver: HeatSolver): void {
    this.times.push(timeS);
    const { grid, slabLayers } = this.mesh;
    const surface = (slabLayers - 1) * this.plane;
    const top = (grid.nz - 1) * this.plane;
    for (const curve of this.curves) {
      const { cells } = curve;
      let min = Infinity;
      let max = -Infinity;
      let sum = 0;
      for (const column of cells.jointColumns) {
        const t = cells.meshed
          ? cells.ballsUp
            ? solver.temps[top + column]
            : solver.jointC(surface + column)
          : solver.temps[(cells.facesAir ? surface : 0) + column];
        min = Math.min(min, t);
        max = Math.max(max, t);
        sum += t;
      }
      let body = max;
      if (cells.meshed) for (const column of cells.bodyColumns) body = Math.max(body, solver.temps[top + column]);
      curve.min.push(min);
      curve.max.push(max);
      curve.mean.push(sum / cells.jointColumns.length);
      curve.body.push(body);
    }
    if (this.keepFrames) this.frames.push(this.frame(solver, surface));
  }

  private frame(solver: HeatSolver, surface: number): Float32Array {
    const frame = new Float32Array(this.plane);
    const { heatCapacity, cover } = this.mesh.grid;
    for (let i = 0; i < this.plane; i++)
      frame[i] = heatCapacity[surface + i] > 0 && cover[surface + i] >= 0.5 ? solver.temps[surface + i] : NaN;
    return frame;
  }

  result(): Omit<HeatRun, 'cells' | 'energyError'> {
    return {
      timesS: Float32Array.from(this.times),
      parts: this.curves.map((c) => ({
        ref: c.cells.part.ref,
        jointMinC: Float32Array.from(c.min),
        jointMeanC: Float32Array.from(c.mean),
        jointMaxC: Float32Array.from(c.max),
        bodyMaxC: Float32Array.from(c.body),
      })),
      frames: this.frames,
      xEdgesMm: this.mesh.xEdgesMm,
      yEdgesMm: this.mesh.yEdgesMm,
    };
  }
}

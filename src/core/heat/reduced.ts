import type { PartRef } from '../identities';
import { EigenvalueDecomposition, Matrix, solve } from 'ml-matrix';
import type { Board } from '../board';
import { KELVIN } from './air';
import { stepFilms } from './films';
import { conductances, jointShare, type HeatGrid } from './grid';
import { meshBoard, type BoardMesh, type MeshOptions } from './mesh';
import type { HeatPlan, HeatStep } from './plan';
import { STEFAN_BOLTZMANN } from './constants';
import { HeatSolver, type Films } from './solver';
import { meshedFor, plateGoalC, runPlan, type Moment } from './simulate';
import type { Station } from './station';

/**
 * Reduced model of a family of plans: the same board, station, nozzle, plate and covers, and steps with the same flows and
 * heights; dials and durations are free. Temperatures are written in a few modes found by proper orthogonal
 * decomposition of full runs, and the modes are stepped exactly. Plain data: a worker builds it, the screen runs it.
 * Source: Sirovich (1987), method of snapshots; accuracy measured against the full solver in reduced.test.ts.
 */
export interface ReducedModel {
  readonly modes: number;
  readonly ambientC: number;
  readonly station: Station;
  readonly plateGoalC: number;
  readonly plateReady: boolean;
  /** Settings that are not free, in one word: `familyOf` of every plan it can run. */
  readonly family: string;
  readonly kinds: readonly StepKind[];
  readonly parts: readonly ReducedPart[];
}

/** The air of a step with its flow and height: the modes' matrix and what the air and the plate give, at three dials. */
export interface StepKind {
  readonly key: string;
  /**
   * What radiation adds to the rates beyond a straight line, 1/s: modes × {@link productsOf} their amounts.
   */
  readonly radiated: Float64Array;
  readonly atDials: readonly {
    readonly setpointC: number;
    /** modes × modes, 1/s. */
    readonly matrix: Float64Array;
    /** Per kelvin of the outlet, and of the plate, above ambient. */
    readonly outlet: Float64Array;
    readonly plate: Float64Array;
  }[];
}

/** Rows of weights that give temperatures above ambient from the modes. */
interface ReducedPart {
  readonly ref: PartRef;
  readonly jointMean: Float64Array;
  /** The joints that are ever coldest or hottest in the runs the model is made from. */
  readonly joints: readonly Float64Array[];
  readonly bodies: readonly Float64Array[];
}

/** Modes beyond this share of the first one's energy carry nothing that is seen. Engineering estimate, checked by its test. */
const LEAST_ENERGY = 3e-11;
const MOST_MODES = 36;
/** Moments of a run that are kept, s: dense while the air changes. */
const SNAPSHOTS_S = [1, 2, 3, 4, 6, 8, 11, 15, 20, 26, 33, 41, 50, 60];
/** The film depends a little on the outlet's temperature: three dials, between them by a parabola. */
const SETPOINTS_C = [120, 300, 480];
/** Runs that the modes come from: one dial each, as hot as plans get, and cold before hot. */
const TRAINING_C = 400;
const TRAINING_S = 60;
const LOW_C = 200;

/** The air of a step in one word: steps of one kind share their equations. */
export const kindOf = ({ airSetC, flowLpm, heightMm }: HeatStep): string =>
  airSetC === null ? 'off' : `${flowLpm} l/min at ${heightMm} mm`;

/** Everything about a plan that a reduced model holds fixed, but for the kinds of its steps. */
export const familyOf = (plan: HeatPlan): string => {
  const { partRef, purpose, nozzleMm, ambientC, plateSetC, plateReady, covers, sweepMm, offsetMm, stack } = plan;
  return JSON.stringify([
    ...[partRef, purpose, nozzleMm, ambientC, plateSetC, plateReady, sweepMm, ...offsetMm, stack],
    [...covers].sort(),
  ]);
};

/** Whether a model can run a plan: its settings and the air of all its steps are those of the model. */
export const coversPlan = (model: ReducedModel, plan: HeatPlan): boolean =>
  familyOf(plan) === model.family && plan.steps.every((s) => model.kinds.some((k) => k.key === kindOf(s)));

/** Builds the model of a plan's family from full runs, some half a second on a demo board. */
export function reduceFamily(board: Board, station: Station, plan: HeatPlan, options: MeshOptions = {}): ReducedModel {
  const mesh = meshBoard(board, plan.partRef, { ...options, ...meshedFor(plan) });
  const { grid } = mesh;
  const byKind = new Map(plan.steps.map((s) => [kindOf(s), s]));
  const snapshots = takeSnapshots(board, station, mesh, plan, [...byKind.values()]);
  const { capacity, gx, gy, gz } = conductances(grid);
  const basis = orthogonalModes(snapshots, capacity, grid);
  const conduction = symmetric(
    basis,
    basis.map((v) => conducted(v, { gx, gy, gz }, grid)),
  );
  const solver = new HeatSolver(grid, plan.ambientC);
  const { cells } = solver.exchange();
  const modes = basis.map((v) => gathered(v, cells));
  const kinds = [...byKind].map(([key, step]): StepKind => {
    const setpointsC = step.airSetC === null ? [0] : SETPOINTS_C;
    const faces = setpointsC.map((setpointC) => {
      const asked = step.airSetC === null ? step : { ...step, airSetC: setpointC };
      const { films, topShare } = stepFilms(board, mesh, station, plan, asked);
      return facesUnder(solver, films, topShare);
    });
    const middle = faces[Math.floor(faces.length / 2)];
    return {
      key,
      radiated: radiatedBy(modes, middle.shining, plan.ambientC),
      atDials: faces.map((at, i) => ({
        setpointC: setpointsC[i],
        ...throughFaces(modes, at, conduction, plan.plateSetC !== null),
      })),
    };
  });
  return {
    modes: basis.length,
    ambientC: plan.ambientC,
    station,
    plateGoalC: plateGoalC(station, plan),
    plateReady: plan.plateReady,
    family: familyOf(plan),
    kinds,
    parts: reducedParts(mesh, basis, snapshots),
  };
}

/** Temperatures above ambient at chosen moments of full runs: every kind of step alone and cooling after, and all in turn. */
function takeSnapshots(
  board: Board,
  station: Station,
  mesh: BoardMesh,
  plan: HeatPlan,
  kinds: readonly HeatStep[],
): Float64Array[] {
  const hot = kinds.filter((s) => s.airSetC !== null);
  const off = kinds.find((s) => s.airSetC === null);
  const at = (step: HeatStep, airSetC: number): HeatStep => ({ ...step, airSetC, durationS: TRAINING_S });
  const cooling = off ? [{ ...off, durationS: TRAINING_S }] : [];
  const runs = [
    ...hot.map((s) => [at(s, TRAINING_C), ...cooling]),
    hot.map((s, i) => ({ ...at(s, i === 0 ? LOW_C : TRAINING_C), durationS: TRAINING_S / 2 })),
  ];
  const kept: Float64Array[] = [];
  for (const steps of runs.filter((s) => s.length > 0)) {
    const starts = steps.reduce((list, s) => [...list, list[list.length - 1] + s.durationS], [0]);
    const keep = ({ timeS, solver }: Moment): void => {
      const since = timeS - starts.findLast((s) => s < timeS - 1e-6)!;
      if (SNAPSHOTS_S.includes(Math.round(since))) kept.push(solver.temps.map((t) => t - plan.ambientC));
    };
    runPlan(board, station, { ...plan, steps }, mesh, keep, { meltless: true });
  }
  return kept;
}

/** Modes that are orthogonal and of length one in the heat they hold: Vᵀ C V = 1. */
function orthogonalModes(snapshots: readonly Float64Array[], capacity: Float64Array, grid: HeatGrid): Float64Array[] {
  const filled = capacity.map((c, i) => (grid.heatCapacity[i] > 0 ? c : 0));
  const weighted = snapshots.map((s) => s.map((t, i) => t * filled[i]));
  const gram = new Matrix(snapshots.length, snapshots.length);
  for (let i = 0; i < snapshots.length; i++)
    for (let j = 0; j <= i; j++) {
      const product = dot(weighted[i], snapshots[j]);
      gram.set(i, j, product);
      gram.set(j, i, product);
    }
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(gram, { assumeSymmetric: true });
  const order = realEigenvalues.map((_, k) => k).sort((a, b) => realEigenvalues[b] - realEigenvalues[a]);
  const least = LEAST_ENERGY * realEigenvalues[order[0]];
  return order
    .slice(0, MOST_MODES)
    .filter((k) => realEigenvalues[k] > least)
    .map((k) => {
      const mode = new Float64Array(capacity.length);
      const scale = 1 / Math.sqrt(realEigenvalues[k]);
      snapshots.forEach((s, j) => {
        const w = eigenvectorMatrix.get(j, k) * scale;
        for (let i = 0; i < mode.length; i++) mode[i] += w * s[i];
      });
      return mode;
    });
}

type Flow = Pick<ReturnType<typeof conductances>, 'gx' | 'gy' | 'gz'>;

/** What conduction takes out of every cell, W, at temperatures v. */
function conducted(v: Float64Array, { gx, gy, gz }: Flow, { nx, ny }: HeatGrid): Float64Array {
  const out = new Float64Array(v.length);
  for (const [g, stride] of [
    [gx, 1],
    [gy, nx],
    [gz, nx * ny],
  ] as const)
    for (let i = 0; i + stride < v.length; i++) {
      const flow = g[i] * (v[i] - v[i + stride]);
      out[i] += flow;
      out[i + stride] -= flow;
    }
  return out;
}

/** Vᵀ W, modes × modes, where it is symmetric: W is a symmetric operator on V. */
function symmetric(basis: readonly Float64Array[], images: readonly Float64Array[]): Float64Array {
  const m = basis.length;
  const out = new Float64Array(m * m);
  for (let a = 0; a < m; a++)
    for (let b = 0; b <= a; b++) {
      const product = dot(basis[a], images[b]);
      out[a * m + b] = product;
      out[b * m + a] = product;
    }
  return out;
}

/** Values at some cells. */
function gathered(values: Float64Array, cells: Int32Array): Float64Array {
  const out = new Float64Array(cells.length);
  for (let k = 0; k < cells.length; k++) out[k] = values[cells[k]];
  return out;
}

/** What the faces to the air do: radiation as a straight line beside the film. */
interface FacesUnder {
  readonly tops: number;
  readonly bottoms: number;
  /** W/K. */
  readonly air: Float64Array;
  /** Per kelvin of the outlet, what a top face exchanges with. */
  readonly outletShare: Float64Array;
  /** What of a flux at the face comes from the cell below it, times area and emissivity, m². */
  readonly shining: Float64Array;
}

function facesUnder(solver: HeatSolver, films: Films, topShare: Float64Array): FacesUnder {
  const { top, bottom, side, surroundingsC } = films.radiation!;
  const { perKelvin } = radiationFit(surroundingsC);
  const beside = (film: Float64Array, emissivity: Float64Array): Float64Array =>
    film.map((h, i) => h + emissivity[i] * perKelvin);
  const straight: Films = {
    ...films,
    topFilm: beside(films.topFilm, top),
    bottomFilm: beside(films.bottomFilm, bottom),
    sideFilm: films.sideFilm + side * perKelvin,
    radiation: undefined,
  };
  solver.setFilms(straight);
  const { tops, bottoms, columns, areaM2, air } = solver.exchange();
  const film = (k: number): number =>
    k < tops ? straight.topFilm[columns[k]] : k < tops + bottoms ? straight.bottomFilm[columns[k]] : straight.sideFilm;
  const emissivity = (k: number): number =>
    k < tops ? top[columns[k]] : k < tops + bottoms ? bottom[columns[k]] : side;
  return {
    tops,
    bottoms,
    air: air.slice(),
    outletShare: new Float64Array(tops).map(
      (_, k) => (topShare[columns[k]] * films.topFilm[columns[k]]) / straight.topFilm[columns[k]],
    ),
    // g = A·h/(1 + h·R), so that g/h is the area less what the half cell holds back.
    shining: air.map((g, k) => Math.min(areaM2[k], g / film(k)) * emissivity(k)),
  };
}

/** The modes' equations with the faces to the air; `modes` are their amounts at every face. */
function throughFaces(
  modes: readonly Float64Array[],
  { tops, bottoms, air, outletShare }: FacesUnder,
  conduction: Float64Array,
  plated: boolean,
): { matrix: Float64Array; outlet: Float64Array; plate: Float64Array } {
  const weighted = modes.map((v) => v.map((t, k) => t * air[k]));
  const matrix = symmetric(modes, weighted).map((g, i) => -conduction[i] - g);
  const outlet = Float64Array.from(weighted, (v) => dot(v.subarray(0, tops), outletShare));
  const plate = Float64Array.from(weighted, (v) =>
    plated ? v.subarray(tops, tops + bottoms).reduce((sum, w) => sum + w, 0) : 0,
  );
  return { matrix, outlet, plate };
}

/** So many leading modes carry nearly all of the temperature, and so of what radiates: in squares, and in the smaller cubes. */
const IN_SQUARES = 10;
const IN_CUBES = 4;

/** Products of the leading modes' amounts that radiation is written in: squares first, then cubes, each once. */
export function productsOf(amounts: ArrayLike<number>, modes: number): Float64Array {
  const [p, q] = [Math.min(IN_SQUARES, modes), Math.min(IN_CUBES, modes)];
  const out = new Float64Array((p * (p + 1)) / 2 + (q * (q + 1) * (q + 2)) / 6);
  let k = 0;
  for (let b = 0; b < p; b++) for (let c = b; c < p; c++) out[k++] = amounts[b] * amounts[c];
  for (let b = 0; b < q; b++)
    for (let c = b; c < q; c++) for (let d = c; d < q; d++) out[k++] = amounts[b] * amounts[c] * amounts[d];
  return out;
}

/** What the faces radiate beyond the straight line, projected on the modes: modes × {@link productsOf}. */
function radiatedBy(modes: readonly Float64Array[], shining: Float64Array, ambientC: number): Float64Array {
  const { perKelvin2, perKelvin3 } = radiationFit(ambientC);
  const m = modes.length;
  const [p, q] = [Math.min(IN_SQUARES, m), Math.min(IN_CUBES, m)];
  const terms: Float64Array[] = [];
  for (let b = 0; b < p; b++) {
    const square = scaled(shining, -perKelvin2, modes[b]);
    for (let c = b; c < p; c++) terms.push(scaled(square, b === c ? 1 : 2, modes[c]));
  }
  for (let b = 0; b < q; b++)
    for (let c = b; c < q; c++) {
      const square = scaled(scaled(shining, -perKelvin3, modes[b]), 1, modes[c]);
      for (let d = c; d < q; d++) {
        const orders = b === c && c === d ? 1 : b === c || c === d ? 3 : 6;
        terms.push(scaled(square, orders, modes[d]));
      }
    }
  const out = new Float64Array(m * terms.length);
  for (let a = 0, k = 0; a < m; a++) for (const term of terms) out[k++] = dot(modes[a], term);
  return out;
}

/** factor · a · b, element by element. */
function scaled(a: Float64Array, factor: number, b: Float64Array): Float64Array {
  const out = new Float64Array(a.length);
  for (let k = 0; k < out.length; k++) out[k] = factor * a[k] * b[k];
  return out;
}

/** Surfaces get so hot above the room, K: the span over which {@link radiationFit} holds. */
const FITTED_K = 260;
const FIT_POINTS = 64;

/** Factors of σ((Ta + v)⁴ − Ta⁴) ≈ perKelvin·v + perKelvin2·v² + perKelvin3·v³ over 0 to 260 K by least squares, W/m². */
function radiationFit(ambientC: number): Record<'perKelvin' | 'perKelvin2' | 'perKelvin3', number> {
  const room = ambientC + KELVIN;
  const rises = Array.from({ length: FIT_POINTS }, (_, i) => (FITTED_K * (i + 1)) / FIT_POINTS);
  const powers = new Matrix(rises.map((v) => [v, v ** 2, v ** 3]));
  const flux = Matrix.columnVector(rises.map((v) => STEFAN_BOLTZMANN * ((room + v) ** 4 - room ** 4)));
  const [perKelvin, perKelvin2, perKelvin3] = solve(powers, flux, true).to1DArray();
  return { perKelvin, perKelvin2, perKelvin3 };
}

/** Rows of weights of every part, with only those joints and body cells that are extreme in some snapshot. */
function reducedParts(
  { grid, parts, slabLayers }: BoardMesh,
  basis: readonly Float64Array[],
  snapshots: readonly Float64Array[],
): ReducedPart[] {
  const plane = grid.nx * grid.ny;
  const surface = (slabLayers - 1) * plane;
  const top = (grid.nz - 1) * plane;
  return parts
    .filter((p) => p.jointColumns.length > 0)
    .map(({ part, jointColumns, bodyColumns, meshed, facesAir, ballsUp }) => {
      /** Temperature of a joint as shares of the cells that it lies between. */
      const joint = (column: number) => {
        if (!meshed) return (v: Float64Array): number => v[(facesAir ? surface : 0) + column];
        if (ballsUp) return (v: Float64Array): number => v[top + column];
        const lower = surface + column;
        const share = jointShare(grid, lower);
        return (v: Float64Array): number => share * v[lower] + (1 - share) * v[lower + plane];
      };
      const joints = [...jointColumns].map(joint);
      const bodies = meshed
        ? [...bodyColumns].map(
            (c) =>
              (v: Float64Array): number =>
                v[top + c],
          )
        : [];
      const row = (of: (v: Float64Array) => number): Float64Array => Float64Array.from(basis, of);
      return {
        ref: part.ref,
        jointMean: row((v) => joints.reduce((sum, of) => sum + of(v), 0) / joints.length),
        joints: extremes(joints, snapshots, true).map(row),
        bodies: extremes(bodies, snapshots, false).map(row),
      };
    });
}

/** Those of the probes that read highest, or with `both` lowest too, in some snapshot. */
function extremes<T extends (v: Float64Array) => number>(
  probes: readonly T[],
  snapshots: readonly Float64Array[],
  both: boolean,
): T[] {
  if (probes.length === 0) return [];
  const found = new Set<T>();
  for (const s of snapshots) {
    const read = probes.map((of) => of(s));
    found.add(probes[read.indexOf(Math.max(...read))]);
    if (both) found.add(probes[read.indexOf(Math.min(...read))]);
  }
  return [...found];
}

/** Four sums at once: one alone waits for each addition. */
function dot(a: Float64Array, b: Float64Array): number {
  let [s, t, u, v] = [0, 0, 0, 0];
  const whole = a.length - (a.length % 4);
  for (let i = 0; i < whole; i += 4) {
    s += a[i] * b[i];
    t += a[i + 1] * b[i + 1];
    u += a[i + 2] * b[i + 2];
    v += a[i + 3] * b[i + 3];
  }
  for (let i = whole; i < a.length; i++) s += a[i] * b[i];
  return s + t + (u + v);
}

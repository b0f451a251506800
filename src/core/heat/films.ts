import { bodyBox, partByRef, shieldOver, type Board, type Shield } from '../board';
import { coverOf, type Point } from './cover';
import { entrainment, jetScale, localG, type Jet } from './jet';
import type { BoardMesh } from './mesh';
import type { HeatPlan, HeatStep } from './plan';
import type { Films } from './solver';
import { multiplierAt, outletSteadyC, type Station } from './station';

/** Natural convection on top and below, W/m²K: what a plate of some centimetres has at 100 K above the room. Engineering estimates. */
export const TOP_NATURAL = 6;
export const BOTTOM_NATURAL = 4.8;

/**
 * Total emissivities: solder mask over glass-epoxy and moulded packages 0.9 (non-metals at room to rework temperature 0.85–0.95);
 * foil and heat tape over a guarded part 0.1, a tinned can 0.2. Handbook ranges, from memory.
 */
export const BOARD_EMISSIVITY = 0.9;
const COVER_EMISSIVITY = 0.1;
const CAN_EMISSIVITY = 0.2;

/** Conductance of the gap between board and plate, W/m²K, air and radiation together. Engineering estimate. */
const PLATE_GAP = 30;

/** What a metal cover or tape leaves of the jet. Engineering estimate. */
const COVER_FACTOR = 0.3;

/** Points on the circle in which the nozzle is moved; 12 leave under 0.7 K at the centre (prototype). */
const CIRCLE_POINTS = 12;

/**
 * The films of one step. Conductances are constant within the step; the air temperature follows the outlet through
 * `topShare`: topC = ambient + topShare · (outlet − ambient).
 */
export interface StepFilms {
  readonly films: Films;
  readonly topShare: Float64Array;
}

export function stepFilms(board: Board, mesh: BoardMesh, station: Station, plan: HeatPlan, step: HeatStep): StepFilms {
  const { nx, ny } = mesh.grid;
  const plane = nx * ny;
  const plated = plan.plateSetC !== null;
  const radiation = {
    top: new Float64Array(plane).fill(station.lossShare * BOARD_EMISSIVITY),
    bottom: new Float64Array(plane).fill(plated ? 0 : station.lossShare * BOARD_EMISSIVITY),
    side: station.lossShare * BOARD_EMISSIVITY,
    surroundingsC: plan.ambientC,
  };
  const films: Films = {
    topFilm: new Float64Array(plane),
    topC: new Float64Array(plane).fill(plan.ambientC),
    bottomFilm: new Float64Array(plane).fill(plated ? PLATE_GAP : station.lossShare * BOTTOM_NATURAL),
    bottomC: new Float64Array(plane).fill(plan.ambientC),
    sideFilm: station.lossShare * BOTTOM_NATURAL,
    sideC: plan.ambientC,
    radiation,
  };
  const topShare = new Float64Array(plane);
  const focus = partByRef(board, plan.partRef)!;
  const cover = coveredColumns(board, mesh, plan);
  const [offsetX, offsetY] = plan.offsetMm;
  const blown = radialTable(airOver(station, plan, step), Math.hypot(...spanMm(mesh)) + Math.hypot(offsetX, offsetY));
  for (let y = 0, i = 0; y < ny; y++) {
    for (let x = 0; x < nx; x++, i++) {
      const xMm = (mesh.xEdgesMm[x] + mesh.xEdgesMm[x + 1]) / 2 - focus.xMm - offsetX;
      const yMm = (mesh.yEdgesMm[y] + mesh.yEdgesMm[y + 1]) / 2 - focus.yMm - offsetY;
      const { h, share } = blown(Math.hypot(xMm, yMm));
      const reaches = 1 - (1 - COVER_FACTOR) * cover.share[i];
      films.topFilm[i] = Math.cbrt((h * reaches) ** 3 + (station.lossShare * TOP_NATURAL) ** 3);
      topShare[i] = share;
      radiation.top[i] += station.lossShare * cover.share[i] * (cover.emissivity[i] - BOARD_EMISSIVITY);
    }
  }
  return { films, topShare };
}

const spanMm = ({ xEdgesMm, yEdgesMm }: BoardMesh): [number, number] => [
  xEdgesMm[xEdgesMm.length - 1] - xEdgesMm[0],
  yEdgesMm[yEdgesMm.length - 1] - yEdgesMm[0],
];

/** Points of the table over the distance, mm: between them straight lines are off by about 0.2 W/m²K of several hundred. */
const TABLE_STEP_MM = 0.25;

/** The same air read from a table over the distance: a fine mesh has a hundred times more columns than the table has rows. */
function radialTable(of: ReturnType<typeof airOver>, mostMm: number): ReturnType<typeof airOver> {
  const rows = Array.from({ length: Math.ceil(mostMm / TABLE_STEP_MM) + 2 }, (_, k) => of(k * TABLE_STEP_MM));
  return (distanceMm) => {
    const at = distanceMm / TABLE_STEP_MM;
    const k = Math.floor(at);
    const [a, b, share] = [rows[k], rows[k + 1], at - k];
    return { h: a.h + share * (b.h - a.h), share: a.share + share * (b.share - a.share) };
  };
}

/** Coefficient and entrained share at a distance from the axis, averaged over the circle the nozzle is moved in. */
export function airOver(
  station: Station,
  {
    nozzleMm,
    ambientC,
    sweepMm,
  }: { readonly nozzleMm: number; readonly ambientC: number; readonly sweepMm?: number | null },
  step: Pick<HeatStep, 'airSetC' | 'flowLpm' | 'heightMm'>,
): (distanceMm: number) => { h: number; share: number } {
  if (step.airSetC === null || step.flowLpm <= 0) return () => ({ h: 0, share: 0 });
  const jet: Jet = {
    nozzleMm,
    heightMm: step.heightMm,
    flowLpm: step.flowLpm,
    outletC: outletSteadyC(station, step.airSetC, step.flowLpm, ambientC),
    ambientC,
    multiplier: multiplierAt(station, step.flowLpm),
    spreadDiameters: station.spreadDiameters,
  };
  const scale = jetScale(jet);
  const heightOverD = jet.heightMm / jet.nozzleMm;
  const radiusMm = sweepMm ?? station.motionRadiusMm;
  const angles = Array.from({ length: CIRCLE_POINTS }, (_, k) => (2 * Math.PI * (k + 0.5)) / CIRCLE_POINTS);
  return (distanceMm) => {
    let h = 0;
    let heat = 0;
    for (const angle of angles) {
      const r = Math.hypot(distanceMm - radiusMm * Math.cos(angle), radiusMm * Math.sin(angle));
      const local = scale * localG(r / jet.nozzleMm, heightOverD);
      h += local / CIRCLE_POINTS;
      heat += (local * entrainment(jet, r)) / CIRCLE_POINTS;
    }
    return { h, share: heat / h };
  };
}

/** Guards keep air off a little beyond the body they lie on, mm. Engineering estimate. */
const COVER_RIM_MM = 0.5;

/** How much of every column lies under a cover or a metal can, and what shines there instead of board and parts. */
interface Covered {
  readonly share: Float64Array;
  readonly emissivity: Float64Array;
}

/** Under covers, and under metal cans that stay on: all cans of the worked side but the one over the worked part. */
function coveredColumns(board: Board, mesh: BoardMesh, plan: HeatPlan): Covered {
  const focus = partByRef(board, plan.partRef)!;
  const cans = board.shields.filter((can) => can.side === focus.side && can !== shieldOver(board, focus));
  const parts = plan.covers.map((ref) => partByRef(board, ref)).filter((p) => p !== undefined);
  const plane = mesh.grid.nx * mesh.grid.ny;
  const covered: Covered = { share: new Float64Array(plane), emissivity: new Float64Array(plane) };
  const lay = (box: Box, emissivity: number): void => {
    for (const [column, share] of coverOf(cornersOf(box), mesh.xEdgesMm, mesh.yEdgesMm)) {
      covered.share[column] = Math.max(covered.share[column], share);
      covered.emissivity[column] = emissivity;
    }
  };
  for (const can of cans) lay(canBox(can), CAN_EMISSIVITY);
  for (const part of parts) lay(grown(bodyBox(board, part), COVER_RIM_MM), COVER_EMISSIVITY);
  return covered;
}

const canBox = ({ xMm, yMm, sizeMm: [w, h] }: Shield): Box => ({
  ...{ x0: xMm - w / 2, x1: xMm + w / 2 },
  ...{ y0: yMm - h / 2, y1: yMm + h / 2 },
});
type Box = ReturnType<typeof bodyBox>;
const cornersOf = ({ x0, x1, y0, y1 }: Box): Point[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
const grown = ({ x0, x1, y0, y1 }: Box, by: number): Box => ({ x0: x0 - by, x1: x1 + by, y0: y0 - by, y1: y1 + by });

import { bodyBox, partByRef, shieldOver, type Board, type Shield } from '../board';
import { entrainment, jetScale, localG, type Jet } from './jet';
import type { BoardMesh } from './mesh';
import type { HeatPlan, HeatStep } from './plan';
import type { Films } from './solver';
import { multiplierAt, outletSteadyC, type Station } from './station';

/** Natural convection on top and below, W/m²K; radiation linearised over rework temperatures (9–12; from science notes). */
const TOP_NATURAL = 6;
const BOTTOM_NATURAL = 4.8;
const RADIATION = 10;

/** Conductance of the air gap between board and plate, W/m²K. Engineering estimate. */
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
  const films: Films = {
    topFilm: new Float64Array(plane),
    topC: new Float64Array(plane).fill(plan.ambientC),
    bottomFilm: new Float64Array(plane),
    bottomC: new Float64Array(plane).fill(plan.ambientC),
    sideFilm: BOTTOM_NATURAL + RADIATION,
    sideC: plan.ambientC,
  };
  const topShare = new Float64Array(plane);
  const focus = partByRef(board, plan.partRef)!;
  const cover = coveredColumns(board, mesh, plan);
  const blown = radialTable(airOver(station, plan, step), Math.hypot(...spanMm(mesh)));
  for (let y = 0, i = 0; y < ny; y++) {
    for (let x = 0; x < nx; x++, i++) {
      const xMm = (mesh.xEdgesMm[x] + mesh.xEdgesMm[x + 1]) / 2 - focus.xMm;
      const yMm = (mesh.yEdgesMm[y] + mesh.yEdgesMm[y + 1]) / 2 - focus.yMm;
      const { h, share } = blown(Math.hypot(xMm, yMm));
      const convection = Math.cbrt((h * (cover[i] ? COVER_FACTOR : 1)) ** 3 + TOP_NATURAL ** 3);
      films.topFilm[i] = convection + RADIATION;
      topShare[i] = (convection * share) / films.topFilm[i];
      films.bottomFilm[i] = plan.plateSetC === null ? BOTTOM_NATURAL + RADIATION : PLATE_GAP;
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
    outletC: outletSteadyC(station, step.airSetC, ambientC),
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

/** Columns under a cover, or under a metal can that stays on: all cans of the worked side but the one over the worked part. */
function coveredColumns(board: Board, mesh: BoardMesh, plan: HeatPlan): Uint8Array {
  const focus = partByRef(board, plan.partRef)!;
  const cans = board.shields.filter((can) => can.side === focus.side && can !== shieldOver(board, focus));
  const parts = plan.covers.map((ref) => partByRef(board, ref)).filter((p) => p !== undefined);
  const boxes = [...cans.map(canBox), ...parts.map((p) => grown(bodyBox(board, p), COVER_RIM_MM))];
  const { nx, ny } = mesh.grid;
  const covered = new Uint8Array(nx * ny);
  for (let y = 0, i = 0; y < ny; y++) {
    for (let x = 0; x < nx; x++, i++) {
      const [cx, cy] = [(mesh.xEdgesMm[x] + mesh.xEdgesMm[x + 1]) / 2, (mesh.yEdgesMm[y] + mesh.yEdgesMm[y + 1]) / 2];
      if (boxes.some((box) => inside(box, cx, cy))) covered[i] = 1;
    }
  }
  return covered;
}

const canBox = ({ xMm, yMm, sizeMm: [w, h] }: Shield): Box => ({
  ...{ x0: xMm - w / 2, x1: xMm + w / 2 },
  ...{ y0: yMm - h / 2, y1: yMm + h / 2 },
});
type Box = ReturnType<typeof bodyBox>;
const inside = ({ x0, x1, y0, y1 }: Box, x: number, y: number): boolean => x > x0 && x < x1 && y > y0 && y < y1;
const grown = ({ x0, x1, y0, y1 }: Box, by: number): Box => ({ x0: x0 - by, x1: x1 + by, y0: y0 - by, y1: y1 + by });

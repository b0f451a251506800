import { bodyBox, outlineBox, padsOf, partByRef, type Board, type Part } from '../board';
import { emptyGrid, type HeatGrid } from './grid';
import {
  BOARD_HEAT_CAPACITY,
  BOARD_K_THROUGH,
  MOULD_HEAT_CAPACITY,
  MOULD_K,
  boardInPlaneK,
  jointLayerConductance,
} from './materials';
import { UPPER_BOARD } from './purpose';

/** Board layers from the far side up, as shares of the thickness: the thin one lies under the parts. */
const BOARD_LAYER_SHARES = [0.4, 0.4, 0.2];
export const PART_LAYERS = 2;
export const BOARD_LAYERS = BOARD_LAYER_SHARES.length;

/** Parts with a smaller body share the temperature of the board under them, mm². Engineering estimate. */
const LEAST_MESHED_AREA = 3.9;

/** A body that lies on a carrier, W/m²K: a dry contact. Between two boards, W/m²K: half a millimetre of air. Engineering estimates. */
const LYING_CONTACT = 1000;
const BETWEEN_BOARDS = 60;

/** Coil bodies are ferrite and copper: W/m·K and J/m³K, engineering estimates. */
const COIL_K = 4;
const COIL_HEAT_CAPACITY = 3.6e6;

export interface MeshOptions {
  /** Finest cell, mm. */
  readonly fineMm?: number;
  readonly growth?: number;
  readonly coarsestMm?: number;
  /** The worked part is off: its pads lie bare. */
  readonly bare?: boolean;
  /** The worked part lies on its back, its balls to the air. */
  readonly ballsUp?: boolean;
}

/**
 * For comparing settings and stations, where only the difference counts: it moves the worked part's peak by under 1 K, its
 * neighbours' by up to 3 K (measured on the demo boards).
 */
export const COARSE_MESH: MeshOptions = { fineMm: 1, growth: 1.5, coarsestMm: 5 };

/** Where a part lies in the mesh. */
export interface PartCells {
  readonly part: Part;
  /** Columns (y·nx + x) under its joints. */
  readonly jointColumns: Int32Array;
  /** Columns under its body. */
  readonly bodyColumns: Int32Array;
  /** True when it is a layer of its own; otherwise the board's surface stands for it. */
  readonly meshed: boolean;
  /** True when it is on the side that the air blows on. */
  readonly facesAir: boolean;
  /** True when its joints are balls on its upper face. */
  readonly ballsUp: boolean;
}

export interface BoardMesh {
  readonly grid: HeatGrid;
  /** Cell edges in mm, nx+1 and ny+1 entries. */
  readonly xEdgesMm: Float64Array;
  readonly yEdgesMm: Float64Array;
  readonly parts: readonly PartCells[];
}

/** Tensor-product mesh of a board, fine round the worked part; layers count from the side away from the air. */
export function meshBoard(board: Board, focusRef: string, options: MeshOptions = {}): BoardMesh {
  const { fineMm = 0.5, growth = 1.25, coarsestMm = 3 } = options;
  const focus = partByRef(board, focusRef);
  if (!focus) throw new Error(`meshBoard: no part ${focusRef} on ${board.id}`);
  const box = outlineBox(board);
  const body = bodyBox(board, focus);
  const margin = 2;
  const xEdgesMm = gradedEdges(box.x0, box.x1, body.x0 - margin, body.x1 + margin, fineMm, growth, coarsestMm);
  const yEdgesMm = gradedEdges(box.y0, box.y1, body.y0 - margin, body.y1 + margin, fineMm, growth, coarsestMm);
  const partHeightMm = board.packages[focus.package].heightMm;
  const dz = Float64Array.from(
    [...BOARD_LAYER_SHARES.map((s) => s * board.thicknessMm), ...Array(PART_LAYERS).fill(partHeightMm / PART_LAYERS)],
    (mm) => mm / 1000,
  );
  const grid = emptyGrid(sizesM(xEdgesMm), sizesM(yEdgesMm), dz);
  fillBoard(grid, board, xEdgesMm, yEdgesMm);
  const parts = board.parts.map((part) =>
    part === focus
      ? { ...locate(board, part, focus, xEdgesMm, yEdgesMm, options.bare), ballsUp: options.ballsUp === true }
      : locate(board, part, focus, xEdgesMm, yEdgesMm),
  );
  for (const cells of parts) if (cells.meshed) fillPart(grid, board, cells, partHeightMm);
  return { grid, xEdgesMm, yEdgesMm, parts };
}

/** Cell edges from `start` to `end`: `fine` between `from` and `to`, growing outside. */
export function gradedEdges(
  start: number,
  end: number,
  from: number,
  to: number,
  fine: number,
  growth: number,
  coarsest: number,
): Float64Array {
  const [a, b] = [Math.max(start, from), Math.min(end, to)];
  const core = Math.max(1, Math.round((b - a) / fine));
  const inner = Array.from({ length: core + 1 }, (_, i) => a + ((b - a) * i) / core);
  return Float64Array.from([
    ...growing(a - start, fine, growth, coarsest)
      .map((d) => a - d)
      .reverse(),
    ...inner,
    ...growing(end - b, fine, growth, coarsest).map((d) => b + d),
  ]);
}

/** Distances of the edges that fill `length` with growing cells, the last edge exactly at `length`. */
function growing(length: number, fine: number, growth: number, coarsest: number): number[] {
  if (length < 1e-9) return [];
  const sizes: number[] = [];
  let size = fine;
  for (let sum = 0; sum < length - 1e-9; sum += size) {
    size = Math.min(coarsest, size * growth);
    sizes.push(size);
  }
  const stretch = length / sizes.reduce((s, v) => s + v, 0);
  let at = 0;
  return sizes.map((s) => (at += s * stretch));
}

const sizesM = (edgesMm: Float64Array): Float64Array =>
  Float64Array.from({ length: edgesMm.length - 1 }, (_, i) => (edgesMm[i + 1] - edgesMm[i]) / 1000);

const centre = (edges: Float64Array, i: number): number => (edges[i] + edges[i + 1]) / 2;

function fillBoard(grid: HeatGrid, board: Board, xs: Float64Array, ys: Float64Array): void {
  const { nx, ny } = grid;
  const everywhere = boardInPlaneK(board);
  const areas = board.copperAreas.map(({ outlineMm, coverage }) => ({ outlineMm, k: boardInPlaneK(board, coverage) }));
  for (let y = 0; y < ny; y++) {
    for (let x = 0; x < nx; x++) {
      const [cx, cy] = [centre(xs, x), centre(ys, y)];
      if (!insideOutline(board.outlineMm, cx, cy)) continue;
      const kxy = areas.findLast((a) => insideOutline(a.outlineMm, cx, cy))?.k ?? everywhere;
      for (let z = 0; z < BOARD_LAYERS; z++) {
        const i = (z * ny + y) * nx + x;
        grid.kxy[i] = kxy;
        grid.kz[i] = BOARD_K_THROUGH;
        grid.heatCapacity[i] = BOARD_HEAT_CAPACITY;
      }
    }
  }
}

/** Even–odd rule; x to the right, y down. */
export function insideOutline(outline: readonly (readonly [number, number])[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [xi, yi] = outline[i];
    const [xj, yj] = outline[j];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

function locate(board: Board, part: Part, focus: Part, xs: Float64Array, ys: Float64Array, bare = false): PartCells {
  const body = bodyBox(board, part);
  const nx = xs.length - 1;
  const columns: number[] = [];
  for (let y = 0; y < ys.length - 1; y++) {
    for (let x = 0; x < nx; x++) {
      const [cx, cy] = [centre(xs, x), centre(ys, y)];
      if (cx >= body.x0 && cx <= body.x1 && cy >= body.y0 && cy <= body.y1 && insideOutline(board.outlineMm, cx, cy))
        columns.push(y * nx + x);
    }
  }
  const area = (body.x1 - body.x0) * (body.y1 - body.y0);
  const facesAir = part.side === focus.side;
  const meshed = !bare && facesAir && area >= LEAST_MESHED_AREA && columns.length > 0;
  // A joint counts where the part's own layer stands over it; pads that reach out of the body are taken under its edge.
  const own = new Set(columns);
  const inX = [...new Set(columns.map((c) => c % nx))];
  const inY = [...new Set(columns.map((c) => Math.floor(c / nx)))];
  const under = (x: number, y: number): number => {
    const straight = nearest(inY, ys, y) * nx + nearest(inX, xs, x);
    if (own.has(straight)) return straight;
    // Where the outline cuts a corner off the body.
    const apart = (c: number): number => Math.hypot(centre(xs, c % nx) - x, centre(ys, Math.floor(c / nx)) - y);
    return columns.reduce((a, b) => (apart(b) < apart(a) ? b : a));
  };
  const joints = new Set(
    padsOf(board, part).map(({ xMm, yMm }) => (meshed ? under(xMm, yMm) : cellAt(ys, yMm) * nx + cellAt(xs, xMm))),
  );
  return {
    part,
    jointColumns: Int32Array.from(joints),
    bodyColumns: Int32Array.from(columns.length > 0 ? columns : joints),
    meshed,
    facesAir,
    ballsUp: false,
  };
}

/** Of some cells along an axis the one whose centre is nearest to a coordinate. */
const nearest = (cells: readonly number[], edges: Float64Array, at: number): number =>
  cells.reduce((a, b) => (Math.abs(centre(edges, b) - at) < Math.abs(centre(edges, a) - at) ? b : a));

/** Index of the cell that holds a coordinate, clamped to the mesh. */
export function cellAt(edges: Float64Array, at: number): number {
  let i = 0;
  while (i < edges.length - 2 && edges[i + 1] < at) i++;
  return i;
}

/** Other heights than the mesh's are kept by scaling: k·h/h₀ in the plane, k·h₀/h through, ρc·h/h₀. */
function fillPart(grid: HeatGrid, board: Board, cells: PartCells, meshHeightMm: number): void {
  const { part } = cells;
  const pkg = board.packages[part.package];
  const ratio = pkg.heightMm / meshHeightMm;
  const isBoard = part.ref === UPPER_BOARD;
  const [k, through, heatCapacity] = isBoard
    ? [boardInPlaneK(board), BOARD_K_THROUGH, BOARD_HEAT_CAPACITY]
    : part.kind === 'coil'
      ? [COIL_K, COIL_K, COIL_HEAT_CAPACITY]
      : [MOULD_K, MOULD_K, MOULD_HEAT_CAPACITY];
  const plane = grid.nx * grid.ny;
  const soldered = jointLayerConductance({
    ballMm: pkg.lands.kind === 'array' ? pkg.lands.ballMm : undefined,
    underfilled: part.underfilled,
  });
  const joints = new Set(cells.jointColumns);
  for (const column of cells.bodyColumns) {
    if (grid.heatCapacity[(BOARD_LAYERS - 1) * plane + column] === 0) continue;
    grid.jointConductance[(BOARD_LAYERS - 1) * plane + column] = cells.ballsUp
      ? LYING_CONTACT
      : isBoard && !joints.has(column)
        ? BETWEEN_BOARDS
        : soldered;
    for (let z = BOARD_LAYERS; z < BOARD_LAYERS + PART_LAYERS; z++) {
      const i = z * plane + column;
      grid.kxy[i] = k * ratio;
      grid.kz[i] = through / ratio;
      grid.heatCapacity[i] = heatCapacity * ratio;
    }
  }
}

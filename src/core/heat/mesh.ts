import { bodyBox, bodyOutline, outlineBox, padsOf, partByRef, type Board, type Part } from '../board';
import { coverOf, insideOutline, type Point } from './cover';
import { cellAt, centre, gradedEdges, sizesM, type Grading } from './edges';
import { emptyGrid, type HeatGrid } from './grid';
import { FEW_LAYERS, layersFor, type Layers } from './layers';
import {
  BOARD_HEAT_CAPACITY,
  BOARD_K_THROUGH,
  MOULD_HEAT_CAPACITY,
  MOULD_K,
  boardInPlaneK,
  gapConductance,
  jointLayerConductance,
} from './materials';
import { UPPER_BOARD, type Stacked } from './purpose';

/** Parts with a smaller body share the temperature of the board under them, mm². Engineering estimate. */
const LEAST_MESHED_AREA = 1;

/** A body that lies on a carrier, W/m²K: a dry contact. Engineering estimate. */
const LYING_CONTACT = 1000;

/** Coil bodies are ferrite and copper: W/m·K and J/m³K, engineering estimates. */
const COIL_K = 4;
const COIL_HEAT_CAPACITY = 3.6e6;

export interface MeshOptions extends Partial<Grading> {
  /** Cells through the board and through the parts, as shares; where it is not said, as {@link layersFor} finds them. */
  readonly layers?: Layers;
  /** The worked part is off: its pads lie bare. */
  readonly bare?: boolean;
  /** The worked part lies on its back, its balls to the air. */
  readonly ballsUp?: boolean;
}

export const FINE_MESH: Grading = { fineMm: 0.5, growth: 1.35, coarsestMm: 4 };

/**
 * For comparing settings and stations, where only the difference counts: it moves the worked part's peak by under 1 K, its
 * neighbours' by up to 3 K (measured on the demo boards).
 */
export const COARSE_MESH: MeshOptions = { fineMm: 1, growth: 1.5, coarsestMm: 5, layers: FEW_LAYERS };

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

/** Cells of a slab with bodies on it. */
export interface Mesh {
  readonly grid: HeatGrid;
  /** Cell edges in mm, nx+1 and ny+1 entries. */
  readonly xEdgesMm: Float64Array;
  readonly yEdgesMm: Float64Array;
  /** So many layers of cells are the slab, counted from the side away from the air; those above are bodies. */
  readonly slabLayers: number;
}

export interface BoardMesh extends Mesh {
  readonly parts: readonly PartCells[];
}

/** Tensor-product mesh of a board, fine round the worked part; layers count from the side away from the air. */
export function meshBoard(board: Board | Stacked, focusRef: string, options: MeshOptions = {}): BoardMesh {
  const focus = partByRef(board, focusRef);
  if (!focus) throw new Error(`meshBoard: no part ${focusRef} on ${board.id}`);
  const heightMm = board.packages[focus.package].heightMm;
  const slab: Slab = {
    outlineMm: board.outlineMm,
    thicknessMm: board.thicknessMm,
    kThrough: BOARD_K_THROUGH,
    heatCapacity: BOARD_HEAT_CAPACITY,
    kInPlane: boardInPlaneK(board),
    areas: board.copperAreas.map(({ outlineMm, coverage }) => ({
      outlineMm,
      kInPlane: boardInPlaneK(board, coverage),
    })),
  };
  const layers =
    options.layers ??
    layersFor({
      slab: {
        thicknessMm: board.thicknessMm,
        k: BOARD_K_THROUGH,
        kInPlane: slab.kInPlane,
        heatCapacity: BOARD_HEAT_CAPACITY,
      },
      body: {
        thicknessMm: heightMm,
        widthMm: Math.min(...board.packages[focus.package].bodyMm),
        k: MOULD_K,
        heatCapacity: MOULD_HEAT_CAPACITY,
      },
      contact: solderedDown(board, focus),
    });
  const box = outlineBox(board);
  const body = bodyBox(board, focus);
  const grading = { ...FINE_MESH, ...definedOnly(options) };
  const mesh = meshSlab(slab, heightMm, layers, {
    xEdgesMm: gradedEdges([box.x0, box.x1], [body.x0, body.x1], grading),
    yEdgesMm: gradedEdges([box.y0, box.y1], [body.y0, body.y1], grading),
  });
  const parts = board.parts.map((part) =>
    part === focus
      ? { ...locate(board, part, focus, mesh, options.bare), ballsUp: options.ballsUp === true }
      : locate(board, part, focus, mesh),
  );
  const gap = 'between' in board ? acrossGap(mesh, board) : () => 0;
  for (const cells of parts) if (cells.meshed) layPart(mesh, board, cells, heightMm, gap);
  return { ...mesh, parts };
}

const definedOnly = ({ fineMm, growth, coarsestMm }: MeshOptions): Partial<Grading> =>
  Object.fromEntries(Object.entries({ fineMm, growth, coarsestMm }).filter(([, value]) => value !== undefined));

/** A plate of one thickness; in areas it conducts otherwise. Conductivities in W/m·K, heat capacity in J/m³K. */
export interface Slab {
  readonly outlineMm: readonly Point[];
  readonly thicknessMm: number;
  readonly kInPlane: number;
  readonly kThrough: number;
  readonly heatCapacity: number;
  /** Later ones count where they overlap. */
  readonly areas: readonly { readonly outlineMm: readonly Point[]; readonly kInPlane: number }[];
}

/** The slab's cells, and empty ones above it for bodies. */
export function meshSlab(
  slab: Slab,
  bodyHeightMm: number,
  layers: Layers,
  { xEdgesMm, yEdgesMm }: Pick<Mesh, 'xEdgesMm' | 'yEdgesMm'>,
): Mesh {
  const dz = Float64Array.from(
    [...layers.slab.map((s) => s * slab.thicknessMm), ...layers.body.map((s) => s * bodyHeightMm)],
    (mm) => mm / 1000,
  );
  const grid = emptyGrid(sizesM(xEdgesMm), sizesM(yEdgesMm), dz);
  const { nx, ny } = grid;
  for (const [column, share] of coverOf(slab.outlineMm, xEdgesMm, yEdgesMm)) {
    const [x, y] = [centre(xEdgesMm, column % nx), centre(yEdgesMm, Math.floor(column / nx))];
    const kxy = slab.areas.findLast((a) => insideOutline(a.outlineMm, x, y))?.kInPlane ?? slab.kInPlane;
    for (let z = 0; z < layers.slab.length; z++) {
      const i = z * nx * ny + column;
      grid.kxy[i] = kxy;
      grid.kz[i] = slab.kThrough;
      grid.heatCapacity[i] = slab.heatCapacity;
      grid.cover[i] = share;
    }
  }
  return { grid, xEdgesMm, yEdgesMm, slabLayers: layers.slab.length };
}

function locate(
  board: Board,
  part: Part,
  focus: Part,
  { xEdgesMm: xs, yEdgesMm: ys, grid }: Mesh,
  bare = false,
): PartCells {
  const nx = xs.length - 1;
  const columns = [...coverOf(bodyOutline(board, part), xs, ys).keys()].filter((c) => grid.heatCapacity[c] > 0);
  const [width, height] = board.packages[part.package].bodyMm;
  const facesAir = part.side === focus.side;
  const meshed = !bare && facesAir && width * height >= LEAST_MESHED_AREA && columns.length > 0;
  // A joint counts where the part's own layer stands over it; pads that reach out of the body are taken under its edge.
  const own = new Set(columns);
  const inX = [...new Set(columns.map((c) => c % nx))];
  const inY = [...new Set(columns.map((c) => Math.floor(c / nx)))];
  const under = (x: number, y: number): number => {
    const straight = nearest(inY, ys, y) * nx + nearest(inX, xs, x);
    if (own.has(straight)) return straight;
    // Where the body does not fill its box: turned, or cut by the outline.
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

const solderedDown = (board: Board, { package: id, underfilled }: Part): number => {
  const { lands } = board.packages[id];
  return jointLayerConductance({ ballMm: lands.kind === 'array' ? lands.ballMm : undefined, underfilled });
};

/**
 * Between two boards, by column, W/m²K: what stands there conducts better than air. Its heat is added to the layer that it stands on.
 */
function acrossGap(
  { grid, slabLayers, xEdgesMm, yEdgesMm }: Mesh,
  { gapMm, between }: Stacked,
): (column: number) => number {
  const plane = grid.nx * grid.ny;
  const open = gapConductance(gapMm);
  const byColumn = new Map<number, number>();
  for (const { outlineMm, heightMm } of between) {
    for (const [column, share] of coverOf(outlineMm, xEdgesMm, yEdgesMm)) {
      const over = gapConductance(gapMm, Math.min(heightMm, gapMm));
      byColumn.set(column, (byColumn.get(column) ?? open) + share * (over - open));
      const surface = (slabLayers - 1) * plane + column;
      grid.heatCapacity[surface] += (share * MOULD_HEAT_CAPACITY * heightMm) / 1000 / grid.dz[slabLayers - 1];
    }
  }
  return (column) => byColumn.get(column) ?? open;
}

function layPart(
  mesh: Mesh,
  board: Board,
  cells: PartCells,
  meshHeightMm: number,
  gap: (column: number) => number,
): void {
  const { part } = cells;
  const isBoard = part.ref === UPPER_BOARD;
  const joints = new Set(cells.jointColumns);
  const soldered = solderedDown(board, part);
  layBody(mesh, meshHeightMm, coverOf(bodyOutline(board, part), mesh.xEdgesMm, mesh.yEdgesMm), {
    heightMm: board.packages[part.package].heightMm,
    ...(isBoard
      ? { kInPlane: boardInPlaneK(board), kThrough: BOARD_K_THROUGH, heatCapacity: BOARD_HEAT_CAPACITY }
      : part.kind === 'coil'
        ? { kInPlane: COIL_K, kThrough: COIL_K, heatCapacity: COIL_HEAT_CAPACITY }
        : { kInPlane: MOULD_K, kThrough: MOULD_K, heatCapacity: MOULD_HEAT_CAPACITY }),
    contact: (column) => (cells.ballsUp ? LYING_CONTACT : isBoard && !joints.has(column) ? gap(column) : soldered),
  });
}

/** What stands on a slab. */
export interface Body {
  readonly heightMm: number;
  readonly kInPlane: number;
  readonly kThrough: number;
  readonly heatCapacity: number;
  /** Of the layer between it and the slab at a column, W/m²K; Infinity where they touch. */
  readonly contact: (column: number) => number;
}

/**
 * Fills the layers above a slab with a body. Other heights than the mesh's are kept by scaling: k·h/h₀ in the plane, k·h₀/h
 * through, ρc·h/h₀. Where two bodies share a cell, it gets the mean of both by area.
 */
export function layBody(
  { grid, slabLayers }: Mesh,
  meshHeightMm: number,
  covers: Map<number, number>,
  body: Body,
): void {
  const plane = grid.nx * grid.ny;
  const ratio = body.heightMm / meshHeightMm;
  for (const [column, share] of covers) {
    const surface = (slabLayers - 1) * plane + column;
    if (grid.heatCapacity[surface] === 0) continue;
    const before = grid.heatCapacity[surface + plane] > 0 ? grid.cover[surface + plane] : 0;
    const cover = Math.min(grid.cover[surface], before + share);
    if (cover <= before) continue;
    const mixed = (was: number, is: number): number => (was * before + is * (cover - before)) / cover;
    const contact = body.contact(column);
    grid.jointConductance[surface] = before > 0 ? mixed(grid.jointConductance[surface], contact) : contact;
    for (let i = surface + plane; i < grid.heatCapacity.length; i += plane) {
      grid.kxy[i] = mixed(grid.kxy[i], body.kInPlane * ratio);
      grid.kz[i] = mixed(grid.kz[i], body.kThrough / ratio);
      grid.heatCapacity[i] = mixed(grid.heatCapacity[i], body.heatCapacity * ratio);
      grid.stretch[i] = mixed(grid.stretch[i], ratio);
      grid.cover[i] = cover;
    }
  }
}

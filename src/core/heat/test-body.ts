import { z } from 'zod';
import { coverOf, type Point } from './cover';
import { centre, gradedEdges, tapsAt } from './edges';
import { layersFor } from './layers';
import { FINE_MESH, layBody, meshSlab, type Mesh, type MeshOptions } from './mesh';
import { HeatSolver, type Films } from './solver';
import { stepLengths } from './steps';

const mm = z.number().positive().max(500);
const conductivity = z.number().positive().max(1000).describe('W/m·K');
const heatCapacity = z.number().positive().max(1e7).describe('J/m³K');
const film = z.object({
  filmWm2K: z.number().min(0).max(1e5),
  airC: z.number().min(-50).max(1000),
});
const name = z.string().min(1).max(40);

/**
 * A plain body for checking the solver against other programs: a plate with blocks on it and films of known conductance, no jet.
 * Coordinates in mm from one corner of the plate.
 */
export const testBodySchema = z.object({
  plate: z.object({
    sizeMm: z.tuple([mm, mm]),
    thicknessMm: z.number().positive().max(20),
    kInPlane: conductivity,
    kThrough: conductivity,
    heatCapacity,
  }),
  blocks: z
    .array(
      z.object({
        name,
        xMm: z.number().describe('its centre'),
        yMm: z.number(),
        sizeMm: z.tuple([mm, mm]),
        heightMm: z.number().positive().max(50),
        k: conductivity,
        heatCapacity,
        contactWm2K: z
          .number()
          .positive()
          .nullable()
          .default(null)
          .describe('of the layer under it; null where it touches'),
        top: film.optional().describe('film on its top; that of the plate’s top where it is left out'),
      }),
    )
    .min(1)
    .max(200)
    .describe('the first one is the worked part: the mesh is fine there'),
  startC: z.number().min(-50).max(500),
  steps: z
    .array(
      z.object({
        durationS: z.number().int().min(1).max(3600),
        top: film,
        bottom: film,
        sides: film,
        blockTops: z.record(name, film).default({}).describe('by block, in place of its own'),
      }),
    )
    .min(1)
    .max(50),
  emissivity: z.number().min(0).max(1).default(0).describe('of all faces; 0 leaves radiation out'),
  surroundingsC: z.number().min(-50).max(500).default(25).describe('what the faces radiate to'),
  probes: z
    .array(
      z.object({
        name,
        xMm: z.number(),
        yMm: z.number(),
        on: z.enum(['plateTop', 'plateBottom', 'underBlock', 'blockTop']),
      }),
    )
    .max(200)
    .default([]),
});
export type TestBody = z.infer<typeof testBodySchema>;

export interface TestBodyRun {
  readonly timesS: number[];
  /** Temperatures at whole seconds by column name, °C: of each block its underside (coldest, mean, hottest) and the probes. */
  readonly columns: { readonly name: string; readonly tempsC: number[] }[];
  readonly cells: number;
  readonly energyError: number;
}

/**
 * Runs a test body through the mesh and solver that boards go through.
 * @throws when a block does not lie on the plate, or a probe on a block that is not there.
 */
export function simulateTestBody(body: TestBody, options: MeshOptions = {}): TestBodyRun {
  const mesh = meshTestBody(body, options);
  const solver = new HeatSolver(mesh.grid, body.startC);
  const watched = [...undersides(body, mesh, solver), ...body.probes.map((p) => probeOf(p, mesh, solver))];
  const timesS = [0];
  const columns = watched.map(({ name, read }) => ({ name, tempsC: [body.startC], read }));
  let timeS = 0;
  for (const step of body.steps) {
    solver.setFilms(filmsOf(body, mesh, step));
    for (const stepS of stepLengths(step.durationS)) {
      solver.step(stepS);
      const whole = Math.floor(timeS + stepS + 1e-6) > Math.floor(timeS + 1e-6);
      timeS += stepS;
      if (!whole) continue;
      timesS.push(Math.round(timeS));
      for (const column of columns) column.tempsC.push(column.read());
    }
  }
  const { inJ, turnoverJ } = solver.heatBalance();
  return {
    timesS,
    columns: columns.map(({ name, tempsC }) => ({ name, tempsC })),
    cells: mesh.grid.heatCapacity.filter((c) => c > 0).length,
    energyError: Math.abs(solver.storedJ(body.startC) - inJ) / Math.max(turnoverJ, 1e-9),
  };
}

const rectangle = (x: number, y: number, [w, h]: readonly [number, number]): Point[] => [
  [x - w / 2, y - h / 2],
  [x + w / 2, y - h / 2],
  [x + w / 2, y + h / 2],
  [x - w / 2, y + h / 2],
];

function meshTestBody({ plate, blocks }: TestBody, options: MeshOptions): Mesh {
  const [width, length] = plate.sizeMm;
  const [worked] = blocks;
  const grading = { ...FINE_MESH, ...options };
  const around = (at: number, size: number): [number, number] => [at - size / 2, at + size / 2];
  const contact = worked.contactWm2K ?? Infinity;
  const layers =
    options.layers ??
    layersFor({
      slab: { ...plate, k: plate.kThrough },
      body: { ...worked, thicknessMm: worked.heightMm, widthMm: Math.min(...worked.sizeMm) },
      contact,
    });
  const outlineMm = rectangle(width / 2, length / 2, [width, length]);
  const mesh = meshSlab({ ...plate, outlineMm, areas: [] }, worked.heightMm, layers, {
    xEdgesMm: gradedEdges([0, width], around(worked.xMm, worked.sizeMm[0]), grading),
    yEdgesMm: gradedEdges([0, length], around(worked.yMm, worked.sizeMm[1]), grading),
  });
  for (const block of blocks) {
    const covers = coverOf(rectangle(block.xMm, block.yMm, block.sizeMm), mesh.xEdgesMm, mesh.yEdgesMm);
    if (covers.size === 0) throw new Error(`Expected block ${block.name} on the plate; it lies beside it.`);
    const { heightMm, k, heatCapacity, contactWm2K } = block;
    const contact = (): number => contactWm2K ?? Infinity;
    layBody(mesh, worked.heightMm, covers, { heightMm, kInPlane: k, kThrough: k, heatCapacity, contact });
  }
  return mesh;
}

function filmsOf(
  body: TestBody,
  { grid, slabLayers, xEdgesMm, yEdgesMm }: Mesh,
  step: TestBody['steps'][number],
): Films {
  const plane = grid.nx * grid.ny;
  const even = (value: number): Float64Array => new Float64Array(plane).fill(value);
  const raised = { fromCell: slabLayers * plane, film: even(step.top.filmWm2K), airC: even(step.top.airC) };
  for (const block of body.blocks) {
    const top = step.blockTops[block.name] ?? block.top ?? step.top;
    for (const column of coverOf(rectangle(block.xMm, block.yMm, block.sizeMm), xEdgesMm, yEdgesMm).keys()) {
      raised.film[column] = top.filmWm2K;
      raised.airC[column] = top.airC;
    }
  }
  return {
    topFilm: even(step.top.filmWm2K),
    topC: even(step.top.airC),
    bottomFilm: even(step.bottom.filmWm2K),
    bottomC: even(step.bottom.airC),
    sideFilm: step.sides.filmWm2K,
    sideC: step.sides.airC,
    raised,
    radiation:
      body.emissivity > 0
        ? {
            top: even(body.emissivity),
            bottom: even(body.emissivity),
            side: body.emissivity,
            surroundingsC: body.surroundingsC,
          }
        : undefined,
  };
}

interface Watched {
  readonly name: string;
  readonly read: () => number;
}

function undersides(body: TestBody, { grid, slabLayers, xEdgesMm, yEdgesMm }: Mesh, solver: HeatSolver): Watched[] {
  const surface = (slabLayers - 1) * grid.nx * grid.ny;
  return body.blocks.flatMap((block) => {
    const covers = [...coverOf(rectangle(block.xMm, block.yMm, block.sizeMm), xEdgesMm, yEdgesMm)];
    const area = covers.map(([c, share]) => share * grid.dx[c % grid.nx] * grid.dy[Math.floor(c / grid.nx)]);
    const whole = area.reduce((a, b) => a + b, 0);
    const temps = (): number[] => covers.map(([c]) => solver.jointC(surface + c));
    return [
      { name: `${block.name} coldest`, read: () => Math.min(...temps()) },
      { name: `${block.name} mean`, read: () => temps().reduce((sum, t, i) => sum + (t * area[i]) / whole, 0) },
      { name: `${block.name} hottest`, read: () => Math.max(...temps()) },
    ];
  });
}

/** Reads a point between the cells' middles by straight lines; where a column has no such face, the nearest one that has. */
function probeOf({ name, xMm, yMm, on }: TestBody['probes'][number], mesh: Mesh, solver: HeatSolver): Watched {
  const { grid, slabLayers, xEdgesMm: xs, yEdgesMm: ys } = mesh;
  const plane = grid.nx * grid.ny;
  const surface = (slabLayers - 1) * plane;
  const { tops, bottoms, cells } = solver.exchange();
  const readers = new Map<number, () => number>();
  if (on === 'underBlock')
    for (let c = 0; c < plane; c++) {
      if (grid.heatCapacity[surface + plane + c] > 0) readers.set(c, () => solver.jointC(surface + c));
    }
  else
    cells.subarray(0, tops + bottoms).forEach((cell, face) => {
      const level = face >= tops ? 'plateBottom' : cell >= surface + plane ? 'blockTop' : 'plateTop';
      if (level === on) readers.set(cell % plane, () => solver.faceTempC(face));
    });
  if (readers.size === 0) throw new Error(`Expected a face for probe ${name} (${on}); there is none.`);
  const taps = tapsAt(xs, xMm).flatMap(([x, shareX]) =>
    tapsAt(ys, yMm).map(([y, shareY]): [number, number] => [nearestOf(readers, mesh, x, y), shareX * shareY]),
  );
  return { name, read: () => taps.reduce((sum, [column, share]) => sum + share * readers.get(column)!(), 0) };
}

function nearestOf(
  readers: ReadonlyMap<number, unknown>,
  { grid, xEdgesMm, yEdgesMm }: Mesh,
  x: number,
  y: number,
): number {
  const straight = y * grid.nx + x;
  if (readers.has(straight)) return straight;
  const apart = (c: number): number =>
    Math.hypot(
      centre(xEdgesMm, c % grid.nx) - centre(xEdgesMm, x),
      centre(yEdgesMm, Math.floor(c / grid.nx)) - centre(yEdgesMm, y),
    );
  return [...readers.keys()].reduce((a, b) => (apart(b) < apart(a) ? b : a));
}

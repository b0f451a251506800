import { DEMO_BOARDS, demoBoard, demoStations } from '../../../demo/files';
import { partByRef } from '../board';
import { airOver, stepFilms } from './films';
import { openSides, topFaces } from './grid';
import { BOARD_HEAT_CAPACITY, MOULD_HEAT_CAPACITY, boardInPlaneK, jointLayerConductance } from './materials';
import { insideOutline, polygonArea } from './cover';
import { cellAt, gradedEdges } from './edges';
import { meshBoard } from './mesh';
import { startingPlan } from './plan';

test('graded edges start and end where they should, grow outwards and stay below the coarsest', () => {
  const edges = gradedEdges([0, 60], [22, 26], { fineMm: 0.5, growth: 1.25, coarsestMm: 3 });
  const sizes = Array.from({ length: edges.length - 1 }, (_, i) => edges[i + 1] - edges[i]);
  expect(edges[0]).toBeCloseTo(0, 9);
  expect(edges[edges.length - 1]).toBeCloseTo(60, 9);
  expect(Math.min(...sizes)).toBeGreaterThan(0.3);
  expect(Math.max(...sizes)).toBeLessThanOrEqual(3);
  const inner = sizes.filter((_, i) => edges[i] >= 21 - 1e-9 && edges[i + 1] <= 27 + 1e-9);
  expect(inner.every((s) => Math.abs(s - 0.5) < 1e-9)).toBe(true);
});

test('in-plane conductivity by the rule of mixtures: ten layers of 18 µm, 60 %, in 0.8 mm give about 52 W/m·K', () => {
  const layers = Array.from({ length: 10 }, (_, i) => ({ name: `L${i}`, copperUm: 18, coverage: 0.6 }));
  // 385 · 0.135 + 0.3 · 0.865
  expect(boardInPlaneK({ layers, thicknessMm: 0.8 })).toBeCloseTo(52.23, 1);
});

test('underfill and a lower standoff conduct better', () => {
  expect(jointLayerConductance({ ballMm: 0.3, underfilled: true })).toBeGreaterThan(
    jointLayerConductance({ ballMm: 0.3, underfilled: false }),
  );
  expect(jointLayerConductance({ underfilled: false })).toBeGreaterThan(
    jointLayerConductance({ ballMm: 0.3, underfilled: false }),
  );
});

describe.each(DEMO_BOARDS)('the mesh of %s', (id) => {
  const board = demoBoard(id);
  const [focus] = board.ports.map((p) => p.controller);
  const mesh = meshBoard(board, focus);
  const { grid } = mesh;
  const plane = grid.nx * grid.ny;

  /** Heat held per kelvin by the layers from one to another in some columns, J/K. */
  const held = (from: number, to: number, columns: readonly number[]): number => {
    let sum = 0;
    for (let z = from; z < to; z++)
      for (const column of columns)
        sum +=
          grid.heatCapacity[z * plane + column] *
          grid.cover[z * plane + column] *
          grid.dx[column % grid.nx] *
          grid.dy[Math.floor(column / grid.nx)] *
          grid.dz[z];
    return sum;
  };

  test('holds the heat of the board: outline area times thickness times heat capacity, within 0.1 %', () => {
    const joulesPerK = held(0, mesh.slabLayers, [...Array(plane).keys()]);
    const wanted = polygonArea(board.outlineMm) * 1e-6 * (board.thicknessMm / 1000) * BOARD_HEAT_CAPACITY;
    expect(Math.abs(joulesPerK / wanted - 1)).toBeLessThan(0.001);
  });

  test('holds the heat of every part that is a layer of its own: its volume times its heat capacity, within 1 %', () => {
    for (const { part, bodyColumns, meshed } of mesh.parts) {
      // Where two share a cell their heat cannot be told apart.
      const shared = mesh.parts.some(
        (p) => p.meshed && p.part !== part && bodyColumns.some((c) => p.bodyColumns.includes(c)),
      );
      if (!meshed || shared || part.kind === 'coil') continue;
      const pkg = board.packages[part.package];
      const wanted = pkg.bodyMm[0] * pkg.bodyMm[1] * pkg.heightMm * 1e-9 * MOULD_HEAT_CAPACITY;
      expect(Math.abs(held(mesh.slabLayers, grid.nz, [...bodyColumns]) / wanted - 1)).toBeLessThan(0.01);
    }
  });

  test('joints of meshed parts lie under their bodies', () => {
    for (const cells of mesh.parts.filter((p) => p.meshed)) {
      const under = new Set(cells.bodyColumns);
      expect([...cells.jointColumns].every((c) => under.has(c))).toBe(true);
      expect(cells.jointColumns.length).toBeGreaterThan(0);
    }
  });

  test('shows its outline from above once, parts or board, and from below', () => {
    const { cells, areaM2 } = topFaces(grid);
    const outline = polygonArea(board.outlineMm) * 1e-6;
    expect(areaM2.reduce((a, b) => a + b, 0)).toBeCloseTo(outline, 8);
    const worked = mesh.parts.find((p) => p.part.ref === focus)!;
    const [w, h] = board.packages[worked.part.package].bodyMm;
    const own = new Set(worked.bodyColumns);
    const top = cells.reduce(
      (sum, i, k) => sum + (i >= mesh.slabLayers * plane && own.has(i % plane) ? areaM2[k] : 0),
      0,
    );
    expect(top / (w * h * 1e-6)).toBeCloseTo(1, 2);
  });

  test('side faces are open at the outline and round parts only', () => {
    const sides = openSides(grid);
    const inside =
      cellAt(mesh.yEdgesMm, board.outlineMm[0][1] + 20) * grid.nx + cellAt(mesh.xEdgesMm, board.outlineMm[0][0] + 20);
    expect(sides[inside]).toBe(0);
    expect(sides[0]).toBeGreaterThan(0);
  });
});

test('inside and outside of an outline with a cut corner', () => {
  const { outlineMm } = demoBoard('heronlog-4-c');
  expect(insideOutline(outlineMm, 30, 20)).toBe(true);
  expect(insideOutline(outlineMm, 59.5, 41.5)).toBe(false);
  expect(insideOutline(outlineMm, -1, 20)).toBe(false);
});

describe('films', () => {
  const board = demoBoard('heronlog-4-c');
  const [station] = demoStations();
  const mesh = meshBoard(board, 'U4');
  const plan = startingPlan('U4', 'SAC305', 4);
  const hot = plan.steps[2];
  const at = (xMm: number, yMm: number): number =>
    cellAt(mesh.yEdgesMm, yMm) * mesh.grid.nx + cellAt(mesh.xEdgesMm, xMm);
  const u4 = partByRef(board, 'U4')!;
  const under = at(u4.xMm, u4.yMm);
  const far = at(56, 5);

  test('are strongest and hottest under the nozzle', () => {
    const { films, topShare } = stepFilms(board, mesh, station, plan, hot);
    expect(films.topFilm[under]).toBeGreaterThan(2 * films.topFilm[far]);
    expect(topShare[under]).toBeGreaterThan(topShare[far]);
    expect(Math.max(...topShare)).toBeLessThan(1);
  });

  test('fall back to natural convection and radiation when the air is off', () => {
    const { films, topShare } = stepFilms(board, mesh, station, plan, plan.steps[4]);
    expect(new Set(films.topFilm).size).toBe(1);
    expect(Math.max(...topShare)).toBe(0);
  });

  test('a cover weakens the jet over its part only', () => {
    const u9 = partByRef(board, 'U9')!;
    const bare = stepFilms(board, mesh, station, plan, hot).films.topFilm;
    const covered = stepFilms(board, mesh, station, { ...plan, covers: ['U9'] }, hot).films.topFilm;
    expect(covered[at(u9.xMm, u9.yMm)]).toBeLessThan(bare[at(u9.xMm, u9.yMm)]);
    expect(covered[under]).toBe(bare[under]);
  });

  test('a plate changes the bottom film', () => {
    const plain = stepFilms(board, mesh, station, plan, hot).films.bottomFilm[under];
    const plated = stepFilms(board, mesh, station, { ...plan, plateSetC: 120 }, hot).films.bottomFilm[under];
    expect(plated).toBeGreaterThan(plain);
  });
});

test('a ground area conducts better than the board round it, the later area counts, and nothing else changes', () => {
  const board = demoBoard('heronlog-4-c');
  const square = (x: number, y: number, size: number): [number, number][] => [
    [x, y],
    [x + size, y],
    [x + size, y + size],
    [x, y + size],
  ];
  const copperAreas = [
    { what: 'ground', outlineMm: square(5, 5, 20), coverage: 1 },
    { what: 'bare', outlineMm: square(10, 10, 5), coverage: 0 },
  ];
  const [plain, areas] = [board, { ...board, copperAreas }].map((b) => meshBoard(b, 'U4'));
  const at = (x: number, y: number): number => cellAt(areas.yEdgesMm, y) * areas.grid.nx + cellAt(areas.xEdgesMm, x);
  expect(areas.grid.kxy[at(7, 7)]).toBeCloseTo(boardInPlaneK(board, 1), 9);
  expect(areas.grid.kxy[at(7, 7)]).toBeGreaterThan(1.3 * plain.grid.kxy[at(7, 7)]);
  expect(areas.grid.kxy[at(12.5, 12.5)]).toBeCloseTo(0.3, 9);
  expect(areas.grid.kxy[at(40, 30)]).toBe(plain.grid.kxy[at(40, 30)]);
});

test('every pad has its joint at any cell size, also where cells are coarser than pads', () => {
  const board = demoBoard('heronlog-4-c');
  for (const fineMm of [0.5, 0.75, 1]) {
    const cells = meshBoard(board, 'U4', { fineMm }).parts.find((p) => p.part.ref === 'U4')!;
    const xs = new Set([...cells.jointColumns].map((c) => c % meshBoard(board, 'U4', { fineMm }).grid.nx));
    // A ring of pads and the pad in the middle: both edges of the body and its centre.
    expect(xs.size).toBeGreaterThanOrEqual(5);
    expect(cells.jointColumns.length).toBeLessThan(cells.bodyColumns.length);
  }
});

test('a metal can that stays on keeps the air off what lies under it; the one over the worked part is off', () => {
  const board = demoBoard('marshdesk-2-b');
  const [can] = board.shields;
  const [station] = demoStations();
  const under = board.parts.find(
    (p) =>
      p.side === can.side &&
      Math.abs(p.xMm - can.xMm) < can.sizeMm[0] / 2 &&
      Math.abs(p.yMm - can.yMm) < can.sizeMm[1] / 2,
  )!;
  const film = (partRef: string, shields: typeof board.shields): number => {
    const shown = { ...board, shields };
    const mesh = meshBoard(shown, partRef);
    const plan = startingPlan(partRef, 'SAC305', 6);
    const at = cellAt(mesh.yEdgesMm, under.yMm) * mesh.grid.nx + cellAt(mesh.xEdgesMm, under.xMm);
    return stepFilms(shown, mesh, station, plan, plan.steps[2]).films.topFilm[at];
  };
  const outside = board.ports[0].controller;
  expect(film(outside, [can])).toBeLessThan(film(outside, []));
  expect(film(under.ref, [can])).toBe(film(under.ref, []));
});

describe('the air of a moved nozzle', () => {
  const [station] = demoStations();
  const step = { airSetC: 380, flowLpm: 30, heightMm: 12 };
  const plan = { nozzleMm: 6, ambientC: 22 };

  test('held still it is the jet itself: strongest on the axis', () => {
    const still = airOver({ ...station, motionRadiusMm: 0 }, plan, step);
    const moved = airOver(station, plan, step);
    expect(still(0).h).toBeGreaterThan(moved(0).h);
    for (let r = 0; r < 20; r += 2) expect(still(r).h).toBeGreaterThan(still(r + 2).h);
  });

  test('grows with the multiplier of its flow, and there is none without air', () => {
    const byFlow = [{ flowLpm: 30, multiplier: 2 * station.multiplier }];
    expect(airOver({ ...station, multiplierByFlow: byFlow }, plan, step)(3).h).toBeCloseTo(
      2 * airOver(station, plan, step)(3).h,
      9,
    );
    expect(airOver(station, plan, { ...step, airSetC: null })(0)).toEqual({ h: 0, share: 0 });
  });
});

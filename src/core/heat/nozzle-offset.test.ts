import { partByRef } from '../board';
import { seededRandom } from '../math';
import { demoBoard } from '../../../demo/files';
import { bestInFamily } from './family';
import { airOver, stepFilms } from './films';
import { GOALS_BY_ALLOY } from './goals';
import { COARSE_MESH, meshBoard } from './mesh';
import { offsetPlan } from './nozzle-offset';
import { offsetLabel } from './offset-label';
import { nozzleFor, startingPlan } from './plan';
import { NOMINAL_STATION } from './station';

const board = demoBoard('heronlog-4-c');
const nozzleMm = nozzleFor(NOMINAL_STATION.nozzlesMm, board.packages[partByRef(board, 'U5')!.package].bodyMm);
const plan = startingPlan('U5', board.alloy, nozzleMm);

test('the jet stands where the offset says: its film at any column is that of the distance from there', () => {
  const mesh = meshBoard(board, 'U5', COARSE_MESH);
  const { nx, ny } = mesh.grid;
  const part = partByRef(board, 'U5')!;
  const random = seededRandom(5);
  for (let k = 0; k < 20; k++) {
    const offsetMm: [number, number] = [6 * random() - 3, 6 * random() - 3];
    const { topShare } = stepFilms(board, mesh, NOMINAL_STATION, { ...plan, offsetMm }, plan.steps[2]);
    const blown = airOver(NOMINAL_STATION, plan, plan.steps[2]);
    for (let c = 0; c < nx * ny; c += 97) {
      const xMm = (mesh.xEdgesMm[c % nx] + mesh.xEdgesMm[(c % nx) + 1]) / 2 - part.xMm - offsetMm[0];
      const row = Math.floor(c / nx);
      const yMm = (mesh.yEdgesMm[row] + mesh.yEdgesMm[row + 1]) / 2 - part.yMm - offsetMm[1];
      expect(topShare[c]).toBeCloseTo(blown(Math.hypot(xMm, yMm)).share, 3);
    }
  }
});

test('where a neighbour binds, a nozzle away from it leaves more room than it costs in trouble, as the full solver judges @long', () => {
  const goals = GOALS_BY_ALLOY[board.alloy];
  const over = bestInFamily(board, NOMINAL_STATION, { ...plan, covers: ['U9'] }, { goals, quick: true });
  const beside = offsetPlan(board, NOMINAL_STATION, over, goals)!;
  const [x, y] = beside.offsetMm;
  const [part, neighbour] = ['U5', 'U9'].map((ref) => partByRef(board, ref)!);
  expect(x * (neighbour.xMm - part.xMm) + y * (neighbour.yMm - part.yMm)).toBeLessThan(0);
  expect([x, y].every((mm) => Math.abs(mm) <= 3 && Number.isInteger(2 * mm))).toBe(true);
  const aside = bestInFamily(board, NOMINAL_STATION, beside, { goals, quick: true });
  expect(aside.marginK).toBeGreaterThan(over.marginK + 0.5);
});

test('boards are parted with a nozzle that moves: it is not set beside anything', () => {
  const over = { plan: { ...plan, purpose: 'partBoards' as const }, verdict: undefined as never };
  expect(offsetPlan(board, NOMINAL_STATION, over, GOALS_BY_ALLOY[board.alloy])).toBeUndefined();
});

test.each([
  [[0, 0], undefined],
  [[-1.5, 2.5], '2.9 mm beside its middle, away from U9'],
  [[2, 0], '2.0 mm beside its middle, towards L2'],
  [[-2, 0], '2.0 mm beside its middle, away from L2'],
] as const)('%p is told by what a hand sees', (offsetMm, words) => {
  expect(offsetLabel(board, { ...plan, offsetMm: [...offsetMm] })).toBe(words);
});

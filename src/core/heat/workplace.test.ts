import { DEMO_BOARDS, demoBoard } from '../../../demo/files';
import { outlineBox } from '../board';
import { ALLOYS } from '../joints';
import {
  GOALS_BY_ALLOY,
  NOMINAL_STATION,
  UNDERFILLS,
  UPPER_BOARD,
  adviceOn,
  judgeHeat,
  planFor,
  simulateHeat,
} from '.';
import { startingPlan, withCopper, workplaceOf } from '.';
import { boardInPlaneK } from './materials';
import { jointWindow, usualStack } from './purpose';

const board = demoBoard('heronlog-4-c');
const lift = startingPlan('U4', board.alloy, 4);

describe('where a plan is carried out', () => {
  test('is the job’s own board, untouched, for work on it', () => {
    for (const purpose of ['lift', 'place', 'soften', 'site'] as const)
      expect(workplaceOf(board, { ...lift, purpose })).toBe(board);
  });

  test('is a carrier with the chip alone on it for reballing', () => {
    const carrier = workplaceOf(board, { ...lift, purpose: 'reball' });
    const box = outlineBox(carrier);
    expect([box.x1 - box.x0, box.y1 - box.y0]).toEqual([30, 30]);
    expect(carrier.parts.map((p) => [p.ref, p.xMm, p.yMm, p.underfilled])).toEqual([['U4', 15, 15, false]]);
    expect(boardInPlaneK(carrier)).toBeLessThan(boardInPlaneK(board) / 10);
  });

  test.each(DEMO_BOARDS)('the usual stack on %s lies inside its outline', (id) => {
    const over = demoBoard(id);
    const box = outlineBox(over);
    const { xMm, yMm, sizeMm } = usualStack(over);
    expect(xMm - sizeMm[0] / 2).toBeGreaterThanOrEqual(box.x0);
    expect(yMm + sizeMm[1] / 2).toBeLessThanOrEqual(box.y1);
  });

  test('a stack is put on once, however often it is asked for', () => {
    const plan = planFor(board, NOMINAL_STATION, lift, 'partBoards');
    const once = workplaceOf(board, plan);
    const twice = workplaceOf(once, plan);
    expect(twice.parts.filter((p) => p.ref === UPPER_BOARD)).toHaveLength(1);
    expect(twice.parts).toHaveLength(once.parts.length);
  });
});

test('more copper than a layer can cover becomes thicker copper', () => {
  const [before, twice] = [boardInPlaneK(board), boardInPlaneK(withCopper(board, 2))];
  expect(twice / before).toBeGreaterThan(1.9);
  expect(twice / before).toBeLessThan(2.1);
  expect(boardInPlaneK(withCopper(board, 0.5)) / before).toBeCloseTo(0.5, 1);
  expect(withCopper(board, 1)).toBe(board);
});

test('what a purpose asks of joints: liquidus, or softening and warmth with the solder solid', () => {
  const goals = GOALS_BY_ALLOY.SAC305;
  const { solidusC, liquidusC } = ALLOYS.SAC305;
  const of = (purpose: Parameters<typeof jointWindow>[0]['purpose'], softensC = 150) =>
    jointWindow({ purpose, alloy: 'SAC305', softensC }, goals);
  expect(of('lift')).toEqual({ reachC: liquidusC, aimOverK: 10 });
  expect(of('soften', 130)).toEqual({ reachC: 130, aimOverK: 10, ownLimitC: solidusC - 10 });
  expect(of('site').reachC).toBe(140);
  // Under low-melt solder a site is warmed less: its pads stay solid.
  const low = jointWindow({ purpose: 'site', alloy: 'Sn42Bi58', softensC: 150 }, GOALS_BY_ALLOY.Sn42Bi58);
  expect(low.reachC).toBeLessThan(low.ownLimitC!);
});

test('softening lies well below solder for every kind of underfill (handbook, common practice)', () => {
  for (const { softensC } of Object.values(UNDERFILLS)) expect(softensC).toBeLessThan(ALLOYS.Sn63Pb37.solidusC);
});

test('the iron for pads is as hot as common practice has it, cooler beside plastic, and within its own dial', () => {
  const words = (ref: string, setC: [number, number]): string => {
    const station = { ...NOMINAL_STATION, irons: [{ name: 'Fine iron', setC, tipsMm: [0.4, 1.2] }] };
    const plan = planFor(board, station, { ...lift, partRef: ref }, 'site');
    const run = simulateHeat(board, station, plan, { fineMm: 1, growth: 1.5, coarsestMm: 5, frames: false })!;
    return adviceOn(board, station, plan, run, judgeHeat(board, plan, run))
      .map((a) => a.message)
      .find((w) => w.startsWith('Fine iron'))!;
  };
  const far = board.parts.find((p) => p.ref === 'U8')!;
  expect(words(far.ref, [200, 420])).toBe('Fine iron at 380 °C for the pads; tips 0.4, 1.2 mm.');
  expect(words(far.ref, [200, 350])).toMatch(/^Fine iron at 350 °C/);
  const plastic = board.parts.find((p) => board.packages[p.package].plastic)!;
  expect(words(plastic.ref, [200, 420])).toMatch(/^Fine iron at 300 °C for the pads, no hotter beside the plastic of/);
});

import { demoBoard } from '../../../demo/files';
import { bodyBox, partByRef, type Board } from '../board';
import { bestOrder, clearingSteps, orderCost, stretchesOf } from '.';

const board = demoBoard('heronlog-4-c');
const part = partByRef(board, 'U4')!;
const alone: Board = { ...board, parts: [part] };

test('edges and corners together go once round the part', () => {
  const { x0, y0, x1, y1 } = bodyBox(board, part);
  const round = stretchesOf(board, part).reduce((s, e) => s + e.lengthMm, 0);
  expect(round).toBeCloseTo(2 * (x1 - x0 + y1 - y0), 9);
});

test('a part that stands alone has room all round and nothing to point away from', () => {
  const steps = clearingSteps(alone, part, 'soft');
  expect(steps).toHaveLength(8);
  for (const s of steps) {
    expect(s).toMatchObject({ clearanceMm: 10, near: undefined, risk: 0 });
    expect(s.tool).not.toContain('away');
  }
  // Without risk only turns count: once round, a half quarter from each stretch to the next.
  expect(orderCost(bestOrder(stretchesOf(alone, part)))).toBeCloseTo(7 * 0.5 * 0.05, 9);
});

test('parts of the other side are no neighbours', () => {
  const turned: Board = {
    ...board,
    parts: board.parts.map((p) => (p.ref === 'U4' ? p : { ...p, side: p.side === 'front' ? 'back' : 'front' })),
  };
  const near = stretchesOf(turned, part).flatMap((s) => s.near ?? []);
  for (const ref of near) expect(partByRef(turned, ref)!.side).toBe(part.side);
});

test('of two neighbours the one that costs more is pointed away from, though it stands farther off', () => {
  const box = bodyBox(board, part);
  const [chip, plastic] = ['U9', 'J1'].map((ref) => partByRef(board, ref)!);
  const at = (p: typeof chip, gapMm: number) => {
    const own = bodyBox(board, p);
    return { ...p, side: part.side, xMm: box.x1 + gapMm + (own.x1 - own.x0) / 2, yMm: part.yMm };
  };
  const both: Board = { ...board, parts: [part, at({ ...chip, underfilled: true }, 1), at(plastic, 0.9)] };
  expect(stretchesOf(both, part).find((s) => s.name === 'right edge')!.near).toBe('U9');
});

test('the order does not depend on the order that the stretches are named in', () => {
  const stretches = stretchesOf(board, part);
  const cost = orderCost(bestOrder(stretches));
  for (const turned of [[...stretches].reverse(), [...stretches.slice(3), ...stretches.slice(0, 3)]])
    expect(orderCost(bestOrder(turned))).toBeCloseTo(cost, 12);
});

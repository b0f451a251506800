import { demoBoard } from '../../../demo/files';
import type { Board } from '../board';
import { boardsInDoubt, unplacedParts, workplaceOf } from '.';

const known = demoBoard('heronlog-4-c');
const PLAN = { purpose: 'lift', partRef: 'U4', stack: null } as const;
const sketched = (refs: readonly string[]): Board => ({
  ...known,
  assumed: ['stack'],
  parts: known.parts.map((p) => (refs.includes(p.ref) ? { ...p, assumed: ['place'] } : p)),
});

test('a part that may be anywhere is no neighbour of a plan; the worked one stays', () => {
  const board = sketched(['U9', 'Q1', 'U4']);
  const heated = workplaceOf(board, PLAN);
  expect(heated.parts.map((p) => p.ref)).toEqual(
    known.parts.map((p) => p.ref).filter((r) => !['U9', 'Q1'].includes(r)),
  );
  // The same plan asks for the same board: what is kept for it by its object stays of use.
  expect(workplaceOf(board, PLAN)).toBe(heated);
  expect(unplacedParts(board)).toEqual(known.parts.map((p) => p.ref).filter((r) => ['U9', 'Q1', 'U4'].includes(r)));
});

test('a board that was only looked at may be lighter and heavier; a known one is what it is', () => {
  const [heavy, light] = boardsInDoubt(sketched([]));
  expect(heavy.thicknessMm).toBeCloseTo(1.2 * known.thicknessMm, 9);
  expect(light.thicknessMm * 1.2).toBeCloseTo(known.thicknessMm, 9);
  const copper = (b: Board): number => b.layers.reduce((sum, l) => sum + l.copperUm * l.coverage, 0);
  expect(copper(heavy) / copper(known)).toBeGreaterThan(1.15);
  expect(copper(light)).toBeLessThan(copper(known));
  expect(boardsInDoubt(known)).toEqual([]);
  expect(workplaceOf(known, PLAN)).toBe(known);
});

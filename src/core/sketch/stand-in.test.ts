import { isStandIn, parseBoard } from '../board';
import { Predictor } from '../diagnose';
import { FIRST_ANSWERS, firstBoard, standInBoard } from '.';

const sketch = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
if (!sketch.ok) throw new Error('the first answers begin no board');

test('it is a board like any other, the same each time, and says that even its circuit is assumed', () => {
  const board = standInBoard();
  expect(parseBoard(board)).toEqual({ ok: true, value: board });
  expect(standInBoard()).toEqual(board);
  expect(isStandIn(board)).toBe(true);
  expect(isStandIn(sketch.value)).toBe(false);
  // Nothing of it is known that a sketch with the same answers leaves open.
  expect(board.parts.map((p) => p.assumed)).toEqual(sketch.value.parts.map((p) => p.assumed));
});

test('what is on no list is likelier than on a sketch of the board itself, there as well as elsewhere', () => {
  const weights = (board: typeof sketch.value): { local: number; global: number } => {
    const share = (of: (at: string | null | undefined) => boolean): number =>
      Predictor.of(board).unlisted.reduce((sum, f) => sum + (of(f.unlistedAt) ? f.weight : 0), 0);
    return { local: share((at) => typeof at === 'string'), global: share((at) => at === null) };
  };
  const [standIn, drawn] = [weights(standInBoard()), weights(sketch.value)];
  expect(standIn.local).toBeGreaterThan(drawn.local);
  expect(standIn.global).toBeGreaterThan(drawn.global);
});

import { FIRST_ANSWERS, firstBoard } from '@/core/sketch';
import { editingAfter, partsToPlace, placed, startEditing, type Editing } from './editing';

const first = (): Editing => {
  const made = firstBoard('tern-1', { ...FIRST_ANSWERS, device: 'Tern 1' });
  if (!made.ok) throw new Error(made.problems[0].message);
  return startEditing(made.value, 1);
};

test('an edit can be taken back and made again; a new one forgets what was taken back', () => {
  const start = first();
  const moved = editingAfter(start, { kind: 'edit', edit: placed('U1', { xMm: 20, yMm: 15, side: 'front' }) });
  expect(moved.board.parts.find((p) => p.ref === 'U1')).toMatchObject({ xMm: 20, yMm: 15 });
  const back = editingAfter(moved, { kind: 'undo' });
  expect(back.board).toBe(start.board);
  expect(editingAfter(back, { kind: 'redo' }).board).toBe(moved.board);
  const other = editingAfter(back, { kind: 'edit', edit: { kind: 'remove', ref: 'D1' } });
  expect(editingAfter(other, { kind: 'redo' }).problem).toBe('Nothing was taken back.');
});

test('an edit that is refused changes nothing and says why', () => {
  const start = first();
  const after = editingAfter(start, { kind: 'edit', edit: placed('U1', { xMm: 900, yMm: 15, side: 'front' }) });
  expect(after.board).toBe(start.board);
  expect(after.problem).toMatch(/outside the outline/);
  expect(editingAfter(start, { kind: 'undo' }).problem).toBe('Nothing is left to be taken back.');
});

test('parts are asked for as they are found: the port first, then its controller; a placed one is asked no more', () => {
  const start = first();
  expect(
    partsToPlace(start.board, [])
      .slice(0, 3)
      .map((p) => p.ref),
  ).toEqual(['J1', 'U1', 'U3']);
  const port = editingAfter(start, { kind: 'edit', edit: placed('J1', { xMm: 5, yMm: 20, side: 'front' }) });
  expect(partsToPlace(port.board, [])[0].ref).toBe('U1');
  expect(partsToPlace(port.board, ['U1'])[0].ref).toBe('U3');
  expect(partsToPlace(port.board, ['U1']).at(-1)!.ref).toBe('U1');
});

test('a click on a body takes its middle, its turn and its package; what was said of the package stays', () => {
  const body = { xMm: 20.4, yMm: 15.2, rotationDeg: 90, sizeMm: [4.9, 3.9], pattern: 'SOIC-8', side: 'front' } as const;
  const click = { xMm: 21, yMm: 14.6, side: 'front' } as const;
  const memory = editingAfter(first(), { kind: 'edit', edit: placed('U3', click, [body]) }).board;
  expect(memory.parts.find((p) => p.ref === 'U3')).toMatchObject({
    xMm: 20.4,
    yMm: 15.2,
    rotationDeg: 90,
    package: 'SOIC-8',
  });
  const controller = editingAfter(first(), { kind: 'edit', edit: placed('U1', click, [body]) }).board;
  expect(controller.parts.find((p) => p.ref === 'U1')).toMatchObject({ xMm: 20.4, package: 'QFN-40-0.5' });
  expect(placed('U3', { ...click, side: 'back' }, [body])).toMatchObject({ kind: 'place', xMm: 21 });
});

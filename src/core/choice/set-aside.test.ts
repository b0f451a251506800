import { demoPartTypes } from '../../../demo/files';
import { foldStock, parseStockEntry, supplyFromId, type StockBody, type StockEvent, type StockState } from '../stock';
import type { RouteView } from './choice';
import { fittedChip, judgedByJob, refusedRoute, setAside, withChip } from './set-aside';

const AT = '2026-11-24T08:00:00.000Z';
const types = demoPartTypes().map(({ id, partner }) => ({ id, partner }));

/** A stock as its entry line makes it. */
function stockOf(...lines: readonly string[]): { state: StockState; bodies: StockBody[] } {
  const events: StockEvent[] = [];
  for (const line of lines) {
    const read = parseStockEntry({ state: foldStock(events), types, boards: [] }, line);
    if (!read.ok) throw new Error(`${line}: ${read.problems[0].message}`);
    for (const body of read.value.bodies)
      events.push({ seq: events.length + 1, at: AT, bench: 'Bench 1', actor: 'Lead', body });
  }
  return { state: foldStock(events), bodies: events.map((e) => e.body) };
}

const route = (offer: string): RouteView =>
  ({ offer, supply: supplyFromId(offer), cells: [], goes: true }) as unknown as RouteView;

test('one of a lot gets a name of its own and goes into the bag of the job', () => {
  const { state } = stockOf('lot heron-pd-r2 3 at 8.5');
  const moves = setAside(state, 31, route('L-1'));
  expect(moves).toEqual([
    { kind: 'take', lot: 'L-1', chip: 'C-1' },
    { kind: 'move', chips: ['C-1'], to: { kind: 'bag', job: 31 } },
  ]);
  const chosen = { kind: 'route', supply: { kind: 'lot', lot: 'L-1' } } as Parameters<typeof withChip>[0];
  expect(withChip(chosen, moves)).toMatchObject({ supply: { kind: 'chip', chip: 'C-1', lot: 'L-1' } });
  expect(withChip(chosen, [])).toBe(chosen);
});

test('another choice puts back what waited for this job, and touches no other job’s bag', () => {
  const { state } = stockOf('lot heron-pd-r2 3 at 8.5', 'take l-1 for 31', 'take l-1 for 32');
  const moves = setAside(state, 31, route('L-1'));
  expect(moves[0]).toEqual({ kind: 'move', chips: ['C-1'], to: { kind: 'drawer' } });
  expect(moves.flatMap((m) => (m.kind === 'move' ? m.chips : []))).not.toContain('C-2');
  // The same chip again is where it should be.
  expect(setAside(state, 31, route('C-1'))).toEqual([]);
  // A choice that takes nothing from the stock still frees what waited.
  expect(setAside(state, 31, undefined)).toEqual([moves[0]]);
});

test('a way that is held back or does not fit is refused with its reason', () => {
  expect(refusedRoute({ ...route('C-1'), held: 'prove donor D-5 first' })).toBe(
    'Expected a chip that may be taken; prove donor D-5 first.',
  );
  const cells = [
    { outcome: 'blocks', attribute: 'pins', reason: 'Used pins differ.' },
  ] as unknown as RouteView['cells'];
  expect(refusedRoute({ ...route('C-1'), cells })).toBe('Expected a chip that fits; pins: Used pins differ.');
  expect(refusedRoute(route('C-1'))).toBeUndefined();
});

describe('a new part that goes on', () => {
  const { state } = stockOf('lot heron-pd-r2 3 at 8.5', 'take l-1 for 31');
  const chosen = { ref: 'U4', supply: supplyFromId('C-1') };

  test('is the chip that was chosen for its place', () => {
    expect(fittedChip(state, 31, 'U4', chosen)).toEqual({
      kind: 'move',
      chips: ['C-1'],
      to: { kind: 'fitted', job: 31, ref: 'U4' },
    });
  });

  test.each([
    ['another place', 31, 'U5', chosen],
    ['another job', 32, 'U4', chosen],
    ['a chip that is not in the stock', 31, 'U4', { ref: 'U4', supply: supplyFromId('C-99') }],
    ['no choice', 31, 'U4', undefined],
  ])('moves nothing for %s', (_, job, ref, route_) => {
    expect(fittedChip(state, job, ref, route_)).toBeUndefined();
  });
});

test('what a job proved is said of the chip on its board once; of a chip elsewhere nothing is said', () => {
  const lines = ['lot heron-pd-r2 3 at 8.5', 'take l-1 for 31', 'c-1 on 31 u4'];
  const { state, bodies } = stockOf(...lines);
  const verdict = { chip: 'C-1', job: 31, condition: 'sound' as const, why: 'job 31 proven' };
  const first = judgedByJob(state, bodies, verdict);
  expect(first).toMatchObject({ body: { kind: 'judged', chip: 'C-1' }, message: 'C-1 is judged sound.' });
  expect(judgedByJob(state, [...bodies, first.body!], verdict)).toEqual({ message: 'C-1 is judged sound.' });
  const other = judgedByJob(state, [...bodies, first.body!], { ...verdict, condition: 'suspect' });
  expect(other.body).toMatchObject({ condition: 'suspect' });
  expect(judgedByJob(state, bodies, { ...verdict, job: 32 })).toEqual({
    message: 'C-1 is not on this board by the stock: not counted.',
  });
});

import { DEMO_BOARDS, demoBoard, demoPartTypes, demoStock } from '../../../demo/files';
import { applyStock, foldStock, hoursOf, originLabel, type StockBody, type StockState } from '@/core/stock';
import { donorRows, lotRows, trays } from './shelf';

const NOW = '2026-11-24T08:00:00.000Z';
const types = new Map(demoPartTypes().map((t) => [t.id, t]));
const boards = new Map(DEMO_BOARDS.map((id) => [id as string, demoBoard(id)]));
function stateAfter(...bodies: StockBody[]): StockState {
  const state = foldStock(demoStock());
  for (const body of bodies) applyStock(state, body, NOW);
  return state;
}

test('lots tell their moisture clock; empty ones come last', () => {
  const empty: StockBody = { kind: 'lotCounted', lot: 'L-12', count: 0, why: 'counted' };
  const rows = lotRows(stateAfter(empty), types, hoursOf(NOW));
  expect(rows.at(-1)!.id).toBe('L-12');
  const moisture = (id: string) => rows.find((r) => r.id === id)!.moisture;
  expect(moisture('L-13')).toMatchObject({ level: '3', bake: true, bakeWords: '9 h at 125 °C' });
  expect(moisture('L-14')).toMatchObject({ exposedH: 0, leftH: 168, bake: false });
  expect(moisture('L-15')).toMatchObject({ level: '1', bake: false });
});

test('a type that the library does not know has no clock, and says so', () => {
  const unknown: StockBody = { kind: 'lotIn', lot: 'L-99', typeId: 'alder-x', count: 1, unitPrice: 1, sealed: true };
  const row = lotRows(stateAfter(unknown), types, hoursOf(NOW)).find((r) => r.id === 'L-99')!;
  expect([row.what, row.moisture]).toEqual(['type not in the library', undefined]);
});

test('every loose chip lies in one tray; fitted and scrapped ones in none', () => {
  const scrap: StockBody = { kind: 'move', chips: ['C-90'], to: { kind: 'scrap' } };
  const before = trays(stateAfter(), types, hoursOf(NOW));
  expect(before.map((t) => [t.kind, t.title, t.chips.map((c) => c.id)])).toEqual([
    ['patient', 'Tray of job 27', ['C-107']],
    ['donor', 'Tray of donor D-2', ['C-90']],
  ]);
  expect(trays(stateAfter(scrap), types, hoursOf(NOW)).map((t) => t.kind)).toEqual(['patient']);
});

test('a chip set aside lies in a bag of its own, with where it came from', () => {
  const taken: StockBody[] = [
    { kind: 'take', lot: 'L-14', chip: 'C-200' },
    { kind: 'move', chips: ['C-200'], to: { kind: 'bag', job: 35 } },
  ];
  const bag = trays(stateAfter(...taken), types, hoursOf(NOW)).find((t) => t.kind === 'bag')!;
  expect([bag.title, bag.chips[0].origin]).toEqual(['Set aside for job 35', 'lot L-14']);
});

test.each([
  [{ kind: 'lot', lot: 'L-1' } as const, 'lot L-1'],
  [{ kind: 'donor', donor: 'D-1', boardId: 'b', ref: 'U4' } as const, 'donor D-1, U4'],
  [{ kind: 'job', job: 27, ref: 'U9' } as const, 'taken off job 27, U9'],
])('an origin in words', (origin, words) => {
  expect(originLabel({ origin })).toBe(words);
});

test('whole donors come first, with what was seen on them in words', () => {
  const rows = donorRows(stateAfter(), boards);
  expect(rows.map((d) => d.id)).toEqual(['D-3', 'D-4', 'D-5', 'D-6', 'D-2']);
  const d4 = rows.find((d) => d.id === 'D-4')!;
  expect(d4.board).toBe('Marshdesk 2, main board B');
  expect(d4.proven.at(-1)).toEqual({ fn: 'data-3', worked: false, what: 'data over port 3' });
  expect(d4.parts.filter((p) => !p.sound).map((p) => p.ref)).toEqual(['U5']);
});

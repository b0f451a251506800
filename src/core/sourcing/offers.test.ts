import { DEMO_BOARDS, demoBoard, demoPartTypes, demoStock } from '../../../demo/files';
import { applyStock, foldStock, type StockBody } from '../stock';
import { offersOf, type Offer, type Supplies } from './offers';

const AT = '2026-11-24T08:00:00.000Z';
function suppliesAfter(...bodies: StockBody[]): Supplies {
  const stock = foldStock(demoStock());
  for (const body of bodies) applyStock(stock, body, AT);
  return { stock, types: demoPartTypes(), boards: new Map(DEMO_BOARDS.map((id) => [id, demoBoard(id)])) };
}
const ids = (offers: Offer[]): string[] => offers.map((o) => o.id);
const controllers = (supplies: Supplies, job?: number): Offer[] => offersOf('portController', supplies, job);

test('loose chips, lots, donors and new ones, each with what it costs', () => {
  const offers = offersOf('mux', suppliesAfter());
  expect(ids(offers)).toEqual(['C-90', 'L-17', 'D-3/U5', 'buy sedge-mux-r1']);
  expect(offers.map((o) => [o.supply.kind, o.price, o.count])).toEqual([
    ['chip', 0, 1],
    ['lot', 5.5, 2],
    ['donor', 0, 1],
    ['buy', 6, undefined],
  ]);
  expect(offers[0].summary).toBe('C-90 from D-2, U5, reballed');
  expect(offers[3].summary).toBe('buy new, 5 days');
});

test('what is suspect, dead, set aside for another or empty is not offered', () => {
  const taken: StockBody[] = [
    { kind: 'take', lot: 'L-14', chip: 'C-200' },
    { kind: 'move', chips: ['C-200'], to: { kind: 'bag', job: 35 } },
  ];
  const offered = ids(controllers(suppliesAfter(...taken)));
  expect(offered).not.toContain('L-14');
  expect(offered).not.toContain('C-200');
  expect(offered).not.toContain('C-107');
  expect(ids(controllers(suppliesAfter(...taken), 35))).toContain('C-200');
  // The suspect mux of donor D-4 is left out.
  expect(ids(offersOf('mux', suppliesAfter()))).not.toContain('D-4/U5');
});

test('a chip out of a lot costs what the lot cost, and keeps its moisture history', () => {
  const offer = controllers(suppliesAfter({ kind: 'take', lot: 'L-13', chip: 'C-201' })).find((o) => o.id === 'C-201')!;
  expect([offer.price, offer.summary, offer.candidate.marks?.length]).toEqual([9.8, 'C-201 of lot L-13', 1]);
});

test('donor chips know their board and position, and whether their partner is still there', () => {
  const [pair] = controllers(suppliesAfter()).filter((o) => o.id === 'D-5/U11');
  expect(pair.candidate.from).toEqual({ boardId: 'marshdesk-2-b', position: 'port-1' });
  expect(pair.candidate.withPartner).toBe(true);
  const parted = suppliesAfter(
    { kind: 'donorOpened', donor: 'D-5', override: 'test' },
    { kind: 'pull', donor: 'D-5', chips: [{ ref: 'U19', chip: 'C-202' }], paired: false },
  );
  expect(controllers(parted).find((o) => o.id === 'D-5/U11')!.candidate.withPartner).toBe(false);
});

test('a memory that belongs to a paired controller is offered with it, not for itself', () => {
  const pulled = suppliesAfter(
    { kind: 'donorOpened', donor: 'D-5', override: 'test' },
    {
      kind: 'pull',
      donor: 'D-5',
      chips: [
        { ref: 'U11', chip: 'C-203' },
        { ref: 'U19', chip: 'C-204' },
      ],
      paired: true,
    },
  );
  expect(ids(offersOf('flash', pulled))).not.toContain('C-204');
  expect(controllers(pulled).find((o) => o.id === 'C-203')!.candidate.withPartner).toBe(true);
  expect(ids(offersOf('flash', suppliesAfter()))).not.toContain('D-5/U19');
});

import { problemText } from '../result';
import { checkStock } from './check';
import type { StockBody } from './events';
import { completeStockEntry, nextId, parseStockEntry, type StockWorld } from './lines';
import { applyStock, emptyStock, hoursOf, type StockState } from './state';

const AT = '2026-03-01T12:00:00.000Z';

/** A small stock of its own: two lots, three donors in three states, and chips of each origin. */
function stock(...more: StockBody[]): StockState {
  const state = emptyStock();
  const bodies: StockBody[] = [
    { kind: 'lotIn', lot: 'L-1', typeId: 'alpha', count: 3, unitPrice: 2.5, sealed: true },
    { kind: 'lotIn', lot: 'L-2', typeId: 'beta', count: 1, unitPrice: 4, sealed: false },
    { kind: 'take', lot: 'L-1', chip: 'C-1' },
    { kind: 'donorIn', donor: 'D-1', boardId: 'board-a', price: 30, note: 'wet', parts: DONOR_PARTS },
    { kind: 'donorProven', donor: 'D-1', fn: 'charge', worked: true },
    { kind: 'donorOpened', donor: 'D-1' },
    { kind: 'donorIn', donor: 'D-2', boardId: 'board-a', price: 20, note: '', parts: DONOR_PARTS },
    { kind: 'donorIn', donor: 'D-3', boardId: 'board-a', price: 10, note: '', parts: DONOR_PARTS },
    { kind: 'donorProven', donor: 'D-3', fn: 'charge', worked: false },
    {
      ...{ kind: 'pull', donor: 'D-1', paired: true },
      chips: [
        { ref: 'U1', chip: 'C-2' },
        { ref: 'U2', chip: 'C-3' },
      ],
    },
    { kind: 'removed', job: 7, ref: 'U5', chip: 'C-4', typeId: 'alpha', condition: 'sound' },
    { kind: 'removed', job: 7, ref: 'U6', chip: 'C-5', typeId: 'alpha', condition: 'dead' },
  ];
  for (const body of [...bodies, ...more]) {
    expect(checkStock(state, body)).toBeUndefined();
    applyStock(state, body, AT);
  }
  return state;
}
const DONOR_PARTS = [
  { ref: 'U1', typeId: 'alpha', sound: true },
  { ref: 'U2', typeId: 'flash', sound: true },
  { ref: 'U3', typeId: 'beta', sound: false },
];
const world = (state = stock()): StockWorld => ({
  state,
  types: [{ id: 'alpha', partner: 'flash' }, { id: 'beta', partner: null }, { id: 'flash' }],
  boards: [
    {
      id: 'board-a',
      slots: [
        { ref: 'U1', type: 'alpha', image: 'U2' },
        { ref: 'U2', type: 'flash' },
        { ref: 'U3', type: 'beta', image: 'U2' },
      ],
    },
    { id: 'board-b', slots: [{ ref: 'U1', type: 'beta' }] },
  ],
});
const read = (line: string, of = world()) => {
  const parsed = parseStockEntry(of, line);
  return parsed.ok ? parsed.value : problemText(parsed.problems);
};

describe('what a line becomes', () => {
  test.each<[string, string, object[]]>([
    ['take l-1', 'C-6 taken from L-1', [{ kind: 'take', lot: 'L-1', chip: 'C-6' }]],
    [
      'take L-1 FOR 12',
      'C-6 of L-1, set aside for job 12',
      [{ kind: 'take' }, { kind: 'move', chips: ['C-6'], to: { kind: 'bag', job: 12 } }],
    ],
    ['c-1 for 10', 'C-1: set aside for job 10', [{ kind: 'move', chips: ['C-1'], to: { kind: 'bag', job: 10 } }]],
    [
      'c-1 ON 31 u4',
      'C-1: on job 31, U4',
      [{ kind: 'move', chips: ['C-1'], to: { kind: 'fitted', job: 31, ref: 'U4' } }],
    ],
    ['c-1 back', 'C-1: drawer', [{ kind: 'move', chips: ['C-1'], to: { kind: 'drawer' } }]],
    [
      'c-2 back',
      'C-2 with C-3: tray of donor D-1',
      [{ chips: ['C-2', 'C-3'], to: { kind: 'donorTray', donor: 'D-1' } }],
    ],
    ['c-4 back', 'C-4: tray of job 7', [{ kind: 'move', to: { kind: 'patientTray', job: 7 } }]],
    ['c-5 SCRAP', 'C-5: scrap', [{ kind: 'move', chips: ['C-5'], to: { kind: 'scrap' } }]],
    ['c-1 reballed', 'C-1 reballed', [{ kind: 'reballed', chip: 'C-1' }]],
    ['c-1 dry', 'C-1 into the dry cabinet', [{ kind: 'moisture', of: 'C-1', what: 'dry' }]],
    ['c-1 out', 'C-1 out of the dry cabinet', [{ kind: 'moisture', of: 'C-1', what: 'out' }]],
    [
      'c-1 suspect No output',
      'C-1 is suspect: No output',
      [{ kind: 'judged', condition: 'suspect', why: 'No output' }],
    ],
    [
      'c-1 sound  tried   twice',
      'C-1 is sound: tried twice',
      [{ kind: 'judged', condition: 'sound', why: 'tried twice' }],
    ],
    ['l-2 OPEN', 'L-2 opened', [{ kind: 'moisture', of: 'L-2', what: 'open' }]],
    ['l-2 count 12 found more', 'L-2: 12 counted', [{ kind: 'lotCounted', lot: 'L-2', count: 12, why: 'found more' }]],
    ['off 9 U3', 'C-6: beta off job 9, U3, suspect, into the tray of that job', [{ kind: 'removed', typeId: 'beta' }]],
    ['off 9 u1 BETA Dead', 'C-6: beta off job 9, U1, dead, into the tray of that job', [{ condition: 'dead', job: 9 }]],
    [
      'lot Alpha 10 at 8.5',
      'L-3: 10 alpha at 8.50, sealed',
      [{ kind: 'lotIn', count: 10, unitPrice: 8.5, sealed: true }],
    ],
    ['lot beta 1 AT 0 OPEN', 'L-3: 1 beta at 0.00, open for nobody knows how long', [{ unitPrice: 0, sealed: false }]],
    [
      'donor Board-A at 0',
      'D-4: board-a at 0.00 with U1, U2, U3',
      [{ kind: 'donorIn', donor: 'D-4', price: 0, note: '', parts: DONOR_PARTS.map((p) => ({ ...p, sound: true })) }],
    ],
    [
      'donor board-b AT 4 u1=Alpha',
      'D-4: board-b at 4.00 with U1',
      [{ boardId: 'board-b', parts: [{ ref: 'U1', typeId: 'alpha', sound: true }] }],
    ],
    ['d-2 works Charge', 'D-2: Charge works', [{ kind: 'donorProven', donor: 'D-2', fn: 'charge', worked: true }]],
    ['d-2 FAILS data', 'D-2: data fails', [{ kind: 'donorProven', donor: 'D-2', fn: 'data', worked: false }]],
    [
      'd-3 opened because  it is burnt ',
      'D-3 opened, because it is burnt',
      [{ kind: 'donorOpened', override: 'it is burnt' }],
    ],
    [
      'pull d-1 u3',
      'Off D-1: C-6 is U3, into its tray',
      [{ kind: 'pull', paired: false, chips: [{ ref: 'U3', chip: 'C-6' }] }],
    ],
    [
      '  c-4   for 8  BECAUSE  owner agreed',
      'C-4: set aside for job 8, because owner agreed',
      [{ override: 'owner agreed' }],
    ],
  ])('%s', (line, echo, bodies) => {
    const entry = read(line);
    expect(entry).toMatchObject({ echo, bodies });
    expect(typeof entry === 'string' ? 0 : entry.bodies.length).toBe(bodies.length);
  });

  test('a controller is pulled with its memory where both are on the donor, as a pair', () => {
    const opened = stock({ kind: 'donorOpened', donor: 'D-2', override: 'dead anyway' });
    expect(read('pull d-2 u1', world(opened))).toMatchObject({
      echo: 'Off D-2: C-6 is U1, C-7 is U2, a pair, into its tray',
      bodies: [
        {
          ...{ kind: 'pull', donor: 'D-2', paired: true },
          chips: [
            { ref: 'U1', chip: 'C-6' },
            { ref: 'U2', chip: 'C-7' },
          ],
        },
      ],
    });
    // U3 names a memory too, but has no partner by its type.
    expect(read('pull d-2 u3', world(opened))).toMatchObject({ bodies: [{ paired: false, chips: [{ ref: 'U3' }] }] });
  });

  test('numbers go on from the highest of their letter', () => {
    expect((['L', 'C', 'D'] as const).map((letter) => nextId(stock(), letter))).toEqual(['L-3', 'C-6', 'D-4']);
    expect(nextId(emptyStock(), 'C')).toBe('C-1');
  });
});

test.each([
  ['take', 'Expected a lot, as in "take l-12 for 31"; got "".'],
  ['take xl-1', 'Expected a lot, as in "take l-12 for 31"; got "xl-1".'],
  ['take l-1x', 'Expected a lot, as in "take l-12 for 31"; got "l-1x".'],
  ['take l-1 for', 'Expected "for" and a job’s number, as in "take l-12 for 31"; got "for".'],
  ['take l-1 to 31', 'Expected "for" and a job’s number, as in "take l-12 for 31"; got "to 31".'],
  ['take l-1 for 031', 'Expected "for" and a job’s number, as in "take l-12 for 31"; got "for 031".'],
  ['take l-1 for 3x', 'Expected "for" and a job’s number, as in "take l-12 for 31"; got "for 3x".'],
  ['c-1', 'Expected for, on, back, scrap, reballed, a condition or a moisture word after C-1; got "".'],
  ['c-1 for x3', 'Expected a job’s number after "for"; got "x3".'],
  ['c-1 on', 'Expected a job’s number after "on"; got "".'],
  ['c-1 on 12', 'Expected the place, as in "c-1 on 12 u4"; got none.'],
  ['c-1 suspect', 'Expected why C-1 is suspect, as in "c-1 suspect no output".'],
  ['c-9 scrap', 'Expected a chip that exists; there is no C-9.'],
  ['l-1', 'Expected open, dry, out, baked or count after L-1; got "".'],
  ['l-1 count 4', 'Expected a count and why, as in "l-1 count 4 recounted"; got "4".'],
  ['l-1 count', 'Expected a count and why, as in "l-1 count 4 recounted"; got "".'],
  ['l-1 count 4x again', 'Expected a count and why, as in "l-1 count 4 recounted"; got "4x again".'],
  ['l-1 count x4 again', 'Expected a count and why, as in "l-1 count 4 recounted"; got "x4 again".'],
  ['l-9 baked', 'Expected a lot or chip that exists; there is no L-9.'],
  ['l-9 count 3 found', 'Expected a lot that exists; there is no L-9.'],
  ['off', 'Expected a job and a place, as in "off 32 u4 dead"; got "".'],
  ['off x u4', 'Expected a job and a place, as in "off 32 u4 dead"; got "x u4".'],
  ['off 3 4u', 'Expected a job and a place, as in "off 32 u4 dead"; got "3 4u".'],
  ['off 3 u4x', 'Expected a job and a place, as in "off 32 u4 dead"; got "3 u4x".'],
  ['off 3 u1', 'Expected the part type too, since several boards have a U1; got none.'],
  ['lot alpha', 'Expected a count and a price each, as in "lot alpha 10 at 8.5"; got "".'],
  ['lot alpha 2 at', 'Expected a count and a price each, as in "lot alpha 10 at 8.5"; got "2 at".'],
  ['lot alpha 2 for 3', 'Expected a count and a price each, as in "lot alpha 10 at 8.5"; got "2 for 3".'],
  ['lot alpha 1.5 at 3', 'Expected a count and a price each, as in "lot alpha 10 at 8.5"; got "1.5 at 3".'],
  ['lot alpha 2 at -1', 'Expected a count and a price each, as in "lot alpha 10 at 8.5"; got "2 at -1".'],
  ['lot', 'Expected a part type of the library; got "".'],
  ['donor', 'Expected a board of the library; got "".'],
  ['donor board-a', 'Expected a price, as in "donor board-a at 48"; got "".'],
  ['donor board-a at', 'Expected a price, as in "donor board-a at 48"; got "at".'],
  ['donor board-a for 3', 'Expected a price, as in "donor board-a at 48"; got "for 3".'],
  ['donor board-a at x', 'Expected a price, as in "donor board-a at 48"; got "at x".'],
  ['donor board-a at 3 u9', 'Expected places whose part type matters on board-a; U9 is not one.'],
  ['d-2', 'Expected works, fails or opened after D-2; got "".'],
  ['d-2 works', 'Expected a function, as in "d-2 works charge"; got none.'],
  ['d-2 fails', 'Expected a function, as in "d-2 fails charge"; got none.'],
  ['d-9 works charge', 'Expected a donor that exists; there is no D-9.'],
  ['d-1 opened', 'Expected a donor that is still whole; D-1 is opened already.'],
  ['d-1 works charge', 'Expected a donor that is still whole; D-1 is opened already.'],
  ['d-2 opened', 'Expected donor D-2 to be proven before it is opened; nothing was seen to work on it.'],
  ['d-3 opened', 'Expected donor D-3 to be proven before it is opened; nothing was seen to work on it.'],
  ['pull', 'Expected a donor, as in "pull d-3 u12"; got none.'],
  ['pull d-9 u1', 'Expected a donor that exists; there is no D-9.'],
  ['pull d-1 u1', 'Expected a part that donor D-1 still carries; U1 is not on it.'],
  ['pull d-2 u1', 'Expected donor D-2 to be opened first; it is still whole.'],
  ['c-2 back because broken', 'C-2 with C-3: tray of donor D-1, because broken'],
])('%s: %s', (line, expected) => {
  const entry = read(line);
  expect(typeof entry === 'string' ? entry : entry.echo).toBe(expected);
});

describe('what may not happen', () => {
  const bag = (chip: string, job: number): StockBody => ({ kind: 'move', chips: [chip], to: { kind: 'bag', job } });
  const fit = (chip: string, job: number, ref: string): StockBody => ({
    ...{ kind: 'move', chips: [chip] },
    to: { kind: 'fitted', job, ref },
  });
  const to = (chip: string, place: Extract<StockBody, { kind: 'move' }>['to']): StockBody => ({
    ...{ kind: 'move', chips: [chip], to: place },
  });
  const fitted = (): StockState => stock(bag('C-1', 3), fit('C-1', 3, 'U4'));

  test.each<[string, () => StockState, StockBody, string | undefined]>([
    ['a name in use', stock, { kind: 'take', lot: 'L-1', chip: 'C-1' }, 'Expected a new name; C-1 is in use.'],
    [
      'a lot twice',
      stock,
      { kind: 'lotIn', lot: 'L-2', typeId: 'x', count: 1, unitPrice: 1, sealed: true },
      'Expected a new name; L-2 is in use.',
    ],
    [
      'an empty lot',
      () => stock({ kind: 'take', lot: 'L-2', chip: 'C-6' }),
      { kind: 'take', lot: 'L-2', chip: 'C-7' },
      'Expected a part left in lot L-2; it is empty.',
    ],
    [
      'judging nothing',
      stock,
      { kind: 'judged', chip: 'C-9', condition: 'dead', why: 'x' },
      'Expected a chip that exists; there is no C-9.',
    ],
    ['reballing nothing', stock, { kind: 'reballed', chip: 'C-9' }, 'Expected a chip that exists; there is no C-9.'],
    [
      'a chip moved twice at once',
      stock,
      { kind: 'move', chips: ['C-1', 'C-1'], to: { kind: 'scrap' } },
      'Expected each chip once; one is named twice.',
    ],
    [
      'half a pair alone',
      stock,
      to('C-2', { kind: 'scrap' }),
      'Expected C-2 to move with its partner C-3; got it alone. Say why, if it must.',
    ],
    [
      'half a pair after the other, for one job',
      () => stock({ kind: 'move', chips: ['C-2', 'C-3'], to: { kind: 'bag', job: 4 } }),
      fit('C-2', 4, 'U1'),
      undefined,
    ],
    [
      'half a pair for another job',
      () => stock({ kind: 'move', chips: ['C-2', 'C-3'], to: { kind: 'bag', job: 4 } }),
      fit('C-2', 5, 'U1'),
      'Expected a free chip; C-2 is set aside for job 4.',
    ],
    [
      'two at one place',
      stock,
      { kind: 'move', chips: ['C-2', 'C-3'], to: { kind: 'fitted', job: 4, ref: 'U1' } },
      'Expected one chip for one place; fit them one by one from the bag.',
    ],
    [
      'a place that is taken',
      fitted,
      fit('C-4', 3, 'U4'),
      'Expected C-4 to go back to job 7, where it was taken off; got job 3. Say why, if it must.',
    ],
    [
      'a place that is taken, by a free chip',
      () => {
        const s = fitted();
        applyStock(s, { kind: 'take', lot: 'L-1', chip: 'C-8' }, AT);
        return s;
      },
      fit('C-8', 3, 'U4'),
      'Expected an empty place; C-1 is on job 3, U4.',
    ],
    [
      'another place of the job',
      () => {
        const s = fitted();
        applyStock(s, { kind: 'take', lot: 'L-1', chip: 'C-8' }, AT);
        return s;
      },
      fit('C-8', 3, 'U5'),
      undefined,
    ],
    [
      'the same place of another job',
      () => {
        const s = fitted();
        applyStock(s, { kind: 'take', lot: 'L-1', chip: 'C-8' }, AT);
        return s;
      },
      fit('C-8', 2, 'U4'),
      undefined,
    ],
    ['off into its tray', fitted, to('C-1', { kind: 'patientTray', job: 3 }), undefined],
    [
      'off into another tray',
      fitted,
      to('C-1', { kind: 'patientTray', job: 2 }),
      'Expected C-1 to come off job 3 into its tray first; it is on job 3, U4.',
    ],
    [
      'off into a bag',
      fitted,
      bag('C-1', 3),
      'Expected C-1 to come off job 3 into its tray first; it is on job 3, U4.',
    ],
    [
      'scrap again',
      () => stock(to('C-5', { kind: 'scrap' })),
      to('C-5', { kind: 'scrap' }),
      'Expected a chip that is still here; C-5 was scrapped.',
    ],
    [
      'a pulled chip in the drawer',
      stock,
      { kind: 'move', chips: ['C-2', 'C-3'], to: { kind: 'drawer' } },
      'Expected a new part for the drawer; C-2 has a tray of its own.',
    ],
    [
      'a new part in a donor’s tray',
      stock,
      to('C-1', { kind: 'donorTray', donor: 'D-1' }),
      'Expected C-1 in a tray of its own; it is not from donor D-1.',
    ],
    [
      'a pulled chip in its donor’s tray',
      stock,
      { kind: 'move', chips: ['C-2', 'C-3'], to: { kind: 'donorTray', donor: 'D-1' } },
      undefined,
    ],
    [
      'a pulled chip in another’s',
      stock,
      { kind: 'move', chips: ['C-2', 'C-3'], to: { kind: 'donorTray', donor: 'D-2' } },
      'Expected C-2 in a tray of its own; it is not from donor D-2.',
    ],
    [
      'a new part in a patient’s tray',
      stock,
      to('C-1', { kind: 'patientTray', job: 7 }),
      'Expected C-1 in a tray of its own; it was not taken off job 7.',
    ],
    ['a patient’s chip in its tray', stock, to('C-4', { kind: 'patientTray', job: 7 }), undefined],
    [
      'a patient’s chip in another’s',
      stock,
      to('C-4', { kind: 'patientTray', job: 8 }),
      'Expected C-4 in a tray of its own; it was not taken off job 8.',
    ],
    ['a dead chip for a job', stock, bag('C-5', 7), 'Expected a chip that works; C-5 is dead.'],
    ['a patient’s chip for its own job', stock, bag('C-4', 7), undefined],
    [
      'a pair of one',
      () => stock({ kind: 'donorOpened', donor: 'D-2', override: 'x' }),
      { kind: 'pull', donor: 'D-2', chips: [{ ref: 'U1', chip: 'C-8' }], paired: true },
      'Expected a pair; got one chip.',
    ],
    [
      'one place twice',
      () => stock({ kind: 'donorOpened', donor: 'D-2', override: 'x' }),
      {
        kind: 'pull',
        donor: 'D-2',
        paired: true,
        chips: [
          { ref: 'U1', chip: 'C-8' },
          { ref: 'U1', chip: 'C-9' },
        ],
      },
      'Expected each chip once; one is named twice.',
    ],
    [
      'one name twice',
      () => stock({ kind: 'donorOpened', donor: 'D-2', override: 'x' }),
      {
        kind: 'pull',
        donor: 'D-2',
        paired: true,
        chips: [
          { ref: 'U1', chip: 'C-8' },
          { ref: 'U2', chip: 'C-8' },
        ],
      },
      'Expected each chip once; one is named twice.',
    ],
    [
      'a name in use, of a pulled chip',
      () => stock({ kind: 'donorOpened', donor: 'D-2', override: 'x' }),
      { kind: 'pull', donor: 'D-2', paired: false, chips: [{ ref: 'U1', chip: 'L-1' }] },
      'Expected a new name; L-1 is in use.',
    ],
  ])('%s', (_what, state, body, expected) => {
    expect(checkStock(state(), body)).toBe(expected);
  });
});

describe('what the stock holds afterwards', () => {
  const chip = (state: StockState, id: string) => state.chips.get(id)!;

  test('lots, chips and donors as they came in', () => {
    const state = stock();
    expect(state.lots.get('L-1')).toEqual({ id: 'L-1', typeId: 'alpha', unitPrice: 2.5, left: 2, marks: [] });
    expect(state.lots.get('L-2')!.marks).toBeUndefined();
    expect(chip(state, 'C-1')).toMatchObject({
      origin: { kind: 'lot', lot: 'L-1' },
      place: { kind: 'drawer' },
      reballed: false,
    });
    expect(chip(state, 'C-2')).toMatchObject({
      ...{ typeId: 'alpha', condition: 'sound', partners: ['C-3'], place: { kind: 'donorTray', donor: 'D-1' } },
      origin: { kind: 'donor', donor: 'D-1', boardId: 'board-a', ref: 'U1' },
    });
    expect(chip(state, 'C-3')).toMatchObject({ typeId: 'flash', partners: ['C-2'], origin: { ref: 'U2' } });
    expect(chip(state, 'C-4')).toMatchObject({
      ...{ condition: 'sound', place: { kind: 'patientTray', job: 7 }, partners: [], marks: undefined },
      origin: { kind: 'job', job: 7, ref: 'U5' },
    });
    expect(state.donors.get('D-1')).toMatchObject({ opened: true, price: 30, note: 'wet', parts: [{ ref: 'U3' }] });
    expect(state.donors.get('D-2')).toMatchObject({ opened: false, parts: DONOR_PARTS });
    expect([...state.donors.get('D-3')!.proven]).toEqual([['charge', false]]);
  });

  test('a part that the donor had damaged is suspect, and alone', () => {
    const state = stock({ kind: 'pull', donor: 'D-1', chips: [{ ref: 'U3', chip: 'C-6' }], paired: false });
    expect(chip(state, 'C-6')).toMatchObject({ condition: 'suspect', partners: [], typeId: 'beta' });
    expect(state.donors.get('D-1')!.parts).toEqual([]);
  });

  test('who parts a pair does it for good, with the reason at both', () => {
    const alone: StockBody = { kind: 'move', chips: ['C-2'], to: { kind: 'bag', job: 5 }, override: 'worn flash' };
    const state = stock(alone, { kind: 'move', chips: ['C-3'], to: { kind: 'scrap' } });
    for (const id of ['C-2', 'C-3']) expect(chip(state, id)).toMatchObject({ partners: [], parted: 'worn flash' });
    const together = stock({ ...alone, chips: ['C-2', 'C-3'] });
    expect(chip(together, 'C-2')).toMatchObject({ partners: ['C-3'] });
    expect(chip(together, 'C-2').parted).toBeUndefined();
  });

  test('judged, reballed, counted; the moisture clock in hours, where its beginning is known', () => {
    const state = stock(
      { kind: 'judged', chip: 'C-1', condition: 'suspect', why: 'x' },
      { kind: 'reballed', chip: 'C-2' },
      { kind: 'lotCounted', lot: 'L-1', count: 9, why: 'x' },
      { kind: 'moisture', of: 'L-1', what: 'open' },
      { kind: 'moisture', of: 'L-2', what: 'open' },
      { kind: 'moisture', of: 'C-4', what: 'baked' },
    );
    expect(chip(state, 'C-1').condition).toBe('suspect');
    expect([chip(state, 'C-2').reballed, chip(state, 'C-3').reballed]).toEqual([true, false]);
    expect(state.lots.get('L-1')).toMatchObject({
      left: 9,
      marks: [{ what: 'open', atH: Date.parse(AT) / 3_600_000 }],
    });
    expect(state.lots.get('L-2')!.marks).toBeUndefined();
    expect(chip(state, 'C-4').marks).toEqual([{ what: 'baked', atH: hoursOf(AT) }]);
    expect(hoursOf('1970-01-02T00:00:00Z')).toBe(24);
    // What was taken out of the lot before has a clock of its own.
    expect(chip(state, 'C-1').marks).toEqual([]);
  });
});

test.each([
  ['take ', ['l-1', 'l-2']],
  ['take l-1 ', ['for']],
  ['take l-1 for ', []],
  ['c-1 r', ['reballed']],
  ['off 3 u1 ', ['sound', 'suspect', 'dead']],
  ['off 3 ', []],
  ['l-1 ', ['open', 'dry', 'out', 'baked', 'count']],
  ['lot ', ['alpha', 'beta', 'flash']],
  ['lot alpha 3 ', ['at']],
  ['lot alpha ', []],
  ['donor ', ['board-a', 'board-b']],
  ['donor board-a ', ['at']],
  ['donor board-a at ', []],
  ['d-2 ', ['works', 'fails', 'opened']],
  ['pull ', ['d-1', 'd-2', 'd-3']],
  ['pull D-2 ', ['u1', 'u2', 'u3']],
  ['pull d-9 ', []],
  ['pull d-2 u1 ', []],
  ['d', ['d-1', 'd-2', 'd-3', 'donor']],
])('after "%s" may follow %j', (text, words) => {
  expect([...completeStockEntry(world(), text)].sort()).toEqual([...words].sort());
});

import fc from 'fast-check';
import { jStat } from 'jstat';
import { demoPartTypes } from '../../../demo/files';
import { checkStock } from './check';
import { stockBodySchema, type Place, type StockBody, type StockEvent } from './events';
import { applyStock, emptyStock, foldStock, type StockState } from './state';
import { poissonQuantile, reorderPoints } from './use';

const AT = '2026-11-02T08:00:00.000Z';

/** Enters what may happen; gives back the sentence of what may not. */
function enter(state: StockState, ...bodies: StockBody[]): string | undefined {
  for (const body of bodies) {
    const refused = checkStock(state, stockBodySchema.parse(body));
    if (refused) return refused;
    applyStock(state, body, AT);
  }
  return undefined;
}

const LOT: StockBody = { kind: 'lotIn', lot: 'L-1', typeId: 'heron-pd-r2', count: 2, unitPrice: 8, sealed: true };
const DONOR: StockBody = {
  kind: 'donorIn',
  donor: 'D-1',
  boardId: 'marshdesk-2-b',
  price: 60,
  parts: [
    { ref: 'U13', typeId: 'marsh-pd-r4p', sound: true },
    { ref: 'U19', typeId: 'reed-nor-1', sound: true },
  ],
  note: '',
};
const PROVEN: StockBody = { kind: 'donorProven', donor: 'D-1', fn: 'charge', worked: true };
const OPENED: StockBody = { kind: 'donorOpened', donor: 'D-1' };
const PULL: StockBody = {
  kind: 'pull',
  donor: 'D-1',
  chips: [
    { ref: 'U13', chip: 'C-1' },
    { ref: 'U19', chip: 'C-2' },
  ],
  paired: true,
};
const move = (to: Place, chips: string[], override?: string): StockBody => ({ kind: 'move', chips, to, override });
const take = (chip: string): StockBody => ({ kind: 'take', lot: 'L-1', chip });

test('a lot gives what it holds and no more', () => {
  const state = emptyStock();
  expect(enter(state, LOT, take('C-1'), take('C-2'))).toBeUndefined();
  expect(enter(state, take('C-3'))).toBe('Expected a part left in lot L-1; it is empty.');
  expect(state.lots.get('L-1')!.left).toBe(0);
});

test('a chip set aside for one job is not there for another until it is released', () => {
  const state = emptyStock();
  enter(state, LOT, take('C-1'), move({ kind: 'bag', job: 31 }, ['C-1']));
  expect(enter(state, move({ kind: 'bag', job: 33 }, ['C-1']))).toBe(
    'Expected a free chip; C-1 is set aside for job 31.',
  );
  expect(enter(state, move({ kind: 'drawer' }, ['C-1']), move({ kind: 'bag', job: 33 }, ['C-1']))).toBeUndefined();
});

test('a donor is proven, opened, and only then gives its chips', () => {
  const state = emptyStock();
  expect(enter(state, DONOR, PULL)).toMatch(/to be opened first/);
  expect(enter(state, OPENED)).toMatch(/proven before it is opened/);
  expect(enter(state, PROVEN, OPENED, PULL)).toBeUndefined();
  expect(enter(state, PROVEN)).toMatch(/still whole; D-1 is opened already/);
  expect(state.donors.get('D-1')!.parts).toEqual([]);
  expect(enter(emptyStock(), DONOR, { ...OPENED, override: 'burnt, chips looked sound' })).toBeUndefined();
});

test('a paired chip does not move alone, unless somebody says why', () => {
  const state = emptyStock();
  enter(state, DONOR, PROVEN, OPENED, PULL);
  expect(enter(state, move({ kind: 'bag', job: 28 }, ['C-1']))).toMatch(/move with its partner C-2; got it alone/);
  expect(enter(state, move({ kind: 'bag', job: 28 }, ['C-1', 'C-2']))).toBeUndefined();
  expect(enter(state, move({ kind: 'fitted', job: 28, ref: 'U13' }, ['C-1']))).toBeUndefined();
  expect(enter(state, move({ kind: 'scrap' }, ['C-2']))).toMatch(/move with its partner C-1/);
  const other = emptyStock();
  enter(other, DONOR, PROVEN, OPENED, PULL);
  expect(enter(other, move({ kind: 'bag', job: 28 }, ['C-1'], 'flash is dead'))).toBeUndefined();
  expect([other.chips.get('C-1')!.parted, other.chips.get('C-2')!.partners]).toEqual(['flash is dead', []]);
});

test('a patient’s chip goes back to its own job', () => {
  const state = emptyStock();
  enter(state, { kind: 'removed', job: 27, ref: 'U9', chip: 'C-7', typeId: 'reed-nor-1', condition: 'sound' });
  expect(enter(state, move({ kind: 'bag', job: 28 }, ['C-7']))).toBe(
    'Expected C-7 to go back to job 27, where it was taken off; got job 28. Say why, if it must.',
  );
  expect(enter(state, move({ kind: 'drawer' }, ['C-7']))).toMatch(/has a tray of its own/);
  expect(enter(state, move({ kind: 'bag', job: 27 }, ['C-7']))).toBeUndefined();
});

test('a place on a board takes one chip, and what is fitted comes off first', () => {
  const state = emptyStock();
  const on: Place = { kind: 'fitted', job: 31, ref: 'U4' };
  enter(state, LOT, take('C-1'), take('C-2'), move(on, ['C-1']));
  expect(enter(state, move(on, ['C-2']))).toBe('Expected an empty place; C-1 is on job 31, U4.');
  expect(enter(state, move({ kind: 'drawer' }, ['C-1']))).toMatch(/come off job 31 into its tray first/);
});

test('dead and scrapped chips go nowhere', () => {
  const state = emptyStock();
  enter(state, LOT, take('C-1'), take('C-2'));
  enter(state, { kind: 'judged', chip: 'C-1', condition: 'dead', why: 'shorted' }, move({ kind: 'scrap' }, ['C-2']));
  expect(enter(state, move({ kind: 'bag', job: 31 }, ['C-1']))).toBe('Expected a chip that works; C-1 is dead.');
  expect(enter(state, move({ kind: 'drawer' }, ['C-2']))).toMatch(/was scrapped/);
});

test('the moisture clock of a lot goes with the chip that is taken; pulled chips have none until they are baked', () => {
  const state = emptyStock();
  enter(state, LOT, { kind: 'moisture', of: 'L-1', what: 'open' }, take('C-9'), DONOR, PROVEN, OPENED, PULL);
  expect(state.chips.get('C-9')!.marks).toHaveLength(1);
  expect(state.chips.get('C-1')!.marks).toBeUndefined();
  enter(state, { kind: 'moisture', of: 'C-1', what: 'open' });
  expect(state.chips.get('C-1')!.marks).toBeUndefined();
  enter(state, { kind: 'moisture', of: 'C-1', what: 'baked' });
  expect(state.chips.get('C-1')!.marks).toHaveLength(1);
});

describe('whatever is tried, in any order', () => {
  const lot = fc.constantFrom('L-1', 'L-2');
  const chip = fc.constantFrom(...Array.from({ length: 8 }, (_, i) => `C-${i + 1}`));
  const donor = fc.constantFrom('D-1', 'D-2');
  const job = fc.constantFrom(27, 28, 31);
  const ref = fc.constantFrom('U4', 'U9', 'U13', 'U19');
  const place: fc.Arbitrary<Place> = fc.oneof(
    fc.constant({ kind: 'drawer' } as const),
    fc.record({ kind: fc.constant('donorTray' as const), donor }),
    fc.record({ kind: fc.constant('patientTray' as const), job }),
    fc.record({ kind: fc.constant('bag' as const), job }),
    fc.record({ kind: fc.constant('fitted' as const), job, ref }),
    fc.constant({ kind: 'scrap' } as const),
  );
  const override = fc.option(fc.constant('by order of the bench lead'), { nil: undefined, freq: 6 });
  const body: fc.Arbitrary<StockBody> = fc.oneof(
    fc.record({
      kind: fc.constant('lotIn' as const),
      lot,
      typeId: fc.constant('heron-pd-r2'),
      count: fc.integer({ min: 1, max: 3 }),
      unitPrice: fc.constant(8),
      sealed: fc.boolean(),
    }),
    { arbitrary: fc.record({ kind: fc.constant('take' as const), lot, chip }), weight: 3 },
    fc.record({
      kind: fc.constant('lotCounted' as const),
      lot,
      count: fc.integer({ min: 0, max: 3 }),
      why: fc.constant('counted'),
    }),
    donor.map((id): StockBody => ({ ...DONOR, donor: id })),
    donor.map((id): StockBody => ({ ...PROVEN, donor: id })),
    fc.record({ kind: fc.constant('donorOpened' as const), donor, override }),
    {
      arbitrary: fc.record({
        kind: fc.constant('pull' as const),
        donor,
        chips: fc.array(fc.record({ ref, chip }), { minLength: 1, maxLength: 2 }),
        paired: fc.boolean(),
      }),
      weight: 3,
    },
    fc.record({
      kind: fc.constant('removed' as const),
      job,
      ref,
      chip,
      typeId: fc.constant('reed-nor-1'),
      condition: fc.constantFrom('sound' as const, 'dead' as const),
    }),
    {
      arbitrary: fc.record({
        kind: fc.constant('move' as const),
        chips: fc.array(chip, { minLength: 1, maxLength: 2 }),
        to: place,
        override,
      }),
      weight: 8,
    },
  );

  const start: StockBody[] = [{ ...LOT, count: 3 } as StockBody, DONOR, PROVEN, OPENED, PULL, take('C-3')];
  /** Chips of one job are together wherever they are there. */
  const home = (at: Place): string => ('job' in at ? `job ${at.job}` : JSON.stringify(at));

  test('no chip is in two places, no place holds two, no lot goes below nothing, no pair parts in silence', () => {
    let moved = 0;
    fc.assert(
      fc.property(fc.array(body, { minLength: 10, maxLength: 80, size: 'max' }), (bodies) => {
        const state = emptyStock();
        const kept: StockEvent[] = [];
        const born = new Map<string, number>();
        for (const b of [...start, ...bodies]) {
          if (checkStock(state, b)) continue;
          const pairsBefore = [...state.chips.values()].filter((c) => c.partners.length > 0).map((c) => c.id);
          applyStock(state, b, AT);
          kept.push({ seq: kept.length + 1, at: AT, bench: 'Bench 1', actor: 'Apprentice', body: b });
          if (b.kind === 'take' || b.kind === 'removed') born.set(b.chip, (born.get(b.chip) ?? 0) + 1);
          if (b.kind === 'pull') for (const c of b.chips) born.set(c.chip, (born.get(c.chip) ?? 0) + 1);
          moved += Number(b.kind === 'move');
          for (const l of state.lots.values()) expect(l.left).toBeGreaterThanOrEqual(0);
          for (const id of pairsBefore) {
            const c = state.chips.get(id)!;
            const together = c.partners.every((p) => home(state.chips.get(p)!.place) === home(c.place));
            expect(together || c.parted !== undefined).toBe(true);
            if (c.partners.length === 0) expect(c.parted).toBe('by order of the bench lead');
          }
          const fitted = [...state.chips.values()].flatMap((c) =>
            c.place.kind === 'fitted' ? [`${c.place.job} ${c.place.ref}`] : [],
          );
          expect(new Set(fitted).size).toBe(fitted.length);
        }
        for (const count of born.values()) expect(count).toBe(1);
        expect([...state.chips.keys()].sort()).toEqual([...born.keys()].sort());
        expect(foldStock(kept)).toEqual(state);
      }),
      { numRuns: 300 },
    );
    expect(moved).toBeGreaterThan(300);
  });
});

test('the reorder point is the Poisson quantile of one lead time’s use (jStat)', () => {
  for (const mean of [0.2, 1.3, 4, 9.5]) {
    const n = poissonQuantile(0.95, mean);
    expect(jStat.poisson.cdf(n, mean)).toBeGreaterThanOrEqual(0.95);
    if (n > 0) expect(jStat.poisson.cdf(n - 1, mean)).toBeLessThan(0.95);
  }
});

test('use within the quarter sets the point, and what is on hand is held against it', () => {
  const bodies: StockBody[] = [{ ...LOT, count: 6 }];
  for (let i = 1; i <= 5; i++) bodies.push(take(`C-${i}`), move({ kind: 'fitted', job: i, ref: 'U4' }, [`C-${i}`]));
  const events = bodies.map((body, i): StockEvent => ({
    seq: i + 1,
    at: AT,
    bench: 'Bench 1',
    actor: 'Bench 2',
    body,
  }));
  const [heron] = reorderPoints(
    foldStock(events),
    events,
    demoPartTypes().filter((t) => t.id === 'heron-pd-r2'),
    '2026-11-24T08:00:00.000Z',
  );
  // 5 used in 84 days at 4 days' lead: a mean of 0.24, which stays below 2 with 95 %.
  expect(heron).toEqual({ typeId: 'heron-pd-r2', onHand: 1, used: 5, point: 1, order: true });
});

test('a chip that goes back onto the board it came from uses nothing up, and old use is forgotten', () => {
  const heron = demoPartTypes().filter((t) => t.id === 'heron-pd-r2');
  const on: Place = { kind: 'fitted', job: 27, ref: 'U4' };
  const removed: StockBody = {
    kind: 'removed',
    job: 27,
    ref: 'U4',
    chip: 'C-1',
    typeId: 'heron-pd-r2',
    condition: 'sound',
  };
  const entered = (bodies: StockBody[], at: string): StockEvent[] =>
    bodies.map((body, i) => ({ seq: i + 1, at, bench: 'Bench 1', actor: 'Bench 2', body }));
  const back = entered([removed, move(on, ['C-1'])], AT);
  expect(reorderPoints(foldStock(back), back, heron, AT)[0]).toMatchObject({ used: 0, point: 0, order: false });
  const old = entered([LOT, take('C-1'), move(on, ['C-1'])], '2026-01-10T08:00:00.000Z');
  expect(reorderPoints(foldStock(old), old, heron, AT)[0]).toMatchObject({ used: 0, onHand: 1 });
  // The same use within the quarter counts.
  const recent = entered([LOT, take('C-1'), move(on, ['C-1'])], AT);
  expect(reorderPoints(foldStock(recent), recent, heron, AT)[0]).toMatchObject({ used: 1, onHand: 1 });
});

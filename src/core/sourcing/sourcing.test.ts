import {
  DEMO_BOARDS,
  demoBoard,
  demoPartTypes,
  demoReports,
  demoStock,
  type DEMO_BOARDS as Boards,
} from '../../../demo/files';
import { loadSolver } from '../../workers/allocation/solver';
import { allocate, costAlone } from '../allocation';
import type { Need } from '../parts';
import { applyStock, checkStock, emptyStock, foldStock, hoursOf, type StockBody } from '../stock';
import { resistorsBetween } from '../units';
import type { Supplies } from './offers';
import { needIdOf, queueProblem, servedBy, type QueueNeed } from './queue';
import { goes, routesFor, type Route, type SourcingSettings } from './routes';

const NOW = '2026-11-24T08:00:00.000Z';
const TYPES = demoPartTypes();
const SETTINGS: SourcingSettings = {
  strapValues: resistorsBetween('E24', 1000, 1e6),
  strapTolerance: 0.01,
  nowH: hoursOf(NOW),
  hourPrice: 60,
};
const supplies = (): Supplies => ({
  types: TYPES,
  stock: foldStock(demoStock()),
  boards: new Map(DEMO_BOARDS.map((id) => [id, demoBoard(id)])),
});
function needAt(boardId: (typeof Boards)[number], ref: string): Need {
  const board = demoBoard(boardId);
  const slot = board.slots.find((s) => s.ref === ref)!;
  return { board, slot, built: TYPES.find((t) => t.id === slot.type), imageSound: true };
}
const routes = (need: Need, s: Supplies = supplies(), job?: number): Route[] =>
  routesFor(need, s, demoReports(), SETTINGS, job);
const byId = (all: Route[], id: string): Route | undefined => all.find((r) => r.offer.id === id);

test('the demo bench’s stock holds, event by event', () => {
  const state = emptyStock();
  for (const { body, at, seq } of demoStock()) {
    expect([seq, checkStock(state, body)]).toEqual([seq, undefined]);
    applyStock(state, body, at);
  }
});

test('the way that goes comes first, what does not fit last, each with its price', () => {
  const all = routes(needAt('heronlog-4-c', 'U4'));
  expect([all[0].offer.id, all[0].fit.verdict, all[0].price]).toEqual(['L-12', 'fits', 8.5]);
  expect(all.at(-1)!.fit.verdict).toBe('doesNotFit');
  // Open for two weeks: past the 168 h of level 3.
  expect(byId(all, 'L-13')!.fit.actions[0].words).toMatch(/^Bake 9 h at 125 °C/);
  expect(byId(all, 'D-6/U4')!.price).toBe(26);
});

test('a fused chip serves its own position only, and a donor on which a function failed is held back', () => {
  expect(byId(routes(needAt('marshdesk-2-b', 'U12')), 'D-4/U12')!.fit.verdict).toBe('fitsAfter');
  expect(byId(routes(needAt('marshdesk-2-b', 'U12')), 'D-4/U11')!.fit.verdict).toBe('doesNotFit');
  expect(byId(routes(needAt('marshdesk-2-b', 'U13')), 'D-4/U13')!.held).toBe('data-3 failed on donor D-4');
});

test('a donor that nobody has seen work is held back; its paired flash is not offered for itself', () => {
  const u11 = byId(routes(needAt('marshdesk-2-b', 'U11')), 'D-5/U11')!;
  expect([u11.held, goes(u11), u11.fit.cells.find((c) => c.attribute === 'partner')!.outcome]).toEqual([
    'prove donor D-5 first',
    false,
    'fixable',
  ]);
  expect(byId(routes(needAt('marshdesk-2-b', 'U19')), 'D-5/U19')).toBeUndefined();
  expect(byId(routes(needAt('marshdesk-2-b', 'U19')), 'D-3/U19')).toBeDefined();
});

test('a patient’s chip is offered to its own job only', () => {
  const s = supplies();
  const off: StockBody = {
    kind: 'removed',
    job: 32,
    ref: 'U4',
    chip: 'C-300',
    typeId: 'heron-pd-r2',
    condition: 'sound',
  };
  applyStock(s.stock, off, NOW);
  const need = needAt('heronlog-4-c', 'U4');
  expect(byId(routes(need, s, 32), 'C-300')).toBeDefined();
  expect(byId(routes(need, s, 31), 'C-300')).toBeUndefined();
});

describe('the queue', () => {
  const queue: QueueNeed[] = (['U11', 'U12', 'U13'] as const).map((ref, i) => ({
    job: 35 + i,
    need: needAt('marshdesk-2-b', ref),
  }));
  const planned = async (of: readonly QueueNeed[], s: Supplies = supplies()) => {
    const q = queueProblem(of, s, demoReports(), SETTINGS);
    const plan = allocate(q.problem, await loadSolver());
    if (!plan.ok) throw new Error(plan.problems[0].message);
    return { q, plan: plan.value };
  };

  test('one donor serves what the lot cannot, cheaper than job by job', async () => {
    const { q, plan } = await planned(queue);
    expect([plan.open, plan.unmet]).toEqual([['D-3'], []]);
    expect(servedBy(q.problem, plan).get('D-3')!.length).toBeGreaterThanOrEqual(2);
    expect(costAlone(q.problem).cost).toBeGreaterThan(plan.cost);
  });

  test('a job that changes changes the plan: alone, the lot is enough', async () => {
    const { plan } = await planned([queue[0]]);
    expect([plan.open, plan.assigned.map((o) => o.supply)]).toEqual([[], ['L-14']]);
  });

  test('what is missing is said', async () => {
    const s = supplies();
    for (const id of ['D-3', 'D-4']) s.stock.donors.delete(id);
    s.stock.lots.delete('L-14');
    const only = { ...s, types: s.types.map((t) => (t.id === 'marsh-pd-r3i' ? { ...t, price: undefined } : t)) };
    const { q, plan } = await planned([queue[0]], only);
    expect(plan.unmet).toEqual([needIdOf(35, 'U11')]);
    expect(q.missing.get(plan.unmet[0])).toBe('marsh-pd-r4p would go: prove donor D-5 first');
    const bare = await planned([queue[1]], {
      ...only,
      types: only.types.filter((t) => t.id === 'marsh-pd-r1' || t.kind !== 'portController'),
    });
    expect(bare.q.missing.get(bare.plan.unmet[0])).toBe('no part type of this kind is known');
  });
});

import { demoBoard } from '../../../demo/files';
import { CLEAR_BENCH, World, minutesOf } from '../../../bench/diagnose/optimum';
import { ownChoice } from '../../../bench/diagnose/play';
import { smallBoards } from '../../../bench/diagnose/small-boards';
import { updateBelief } from './belief';
import { repairCost } from './repair-cost';
import { OUTSIDE, targetKey, type RepairTarget } from './faults';
import type { Reading } from './reading';
import { Predictor } from './predictor';
import { rankActions } from './step';
import { RepairCosting } from './repair-costing';

const NONE: ReadonlySet<string> = new Set();
const at = { absent: NONE, replaced: [], taken: [] };

describe('on boards small enough to search every order of tests and work', () => {
  test.each(smallBoards().map((b) => [b.id, b] as const))('%s: within 15 % of the best possible', (_, board) => {
    const world = new World(Predictor.of(board));
    const least = world.leastMinutes();
    const own = minutesOf(world, ownChoice);
    // Nothing can be quicker than the best of all orders, or the search is wrong.
    expect(own).toBeGreaterThanOrEqual(least - 1e-9);
    expect(own / least).toBeLessThan(1.15);
  });

  test('the search is no slower than working straight through, and no quicker than knowing everything', () => {
    const [board] = smallBoards();
    const predictor = Predictor.of(board);
    const world = new World(predictor);
    const belief = updateBelief(predictor, [], [], CLEAR_BENCH);
    const cure = new RepairCosting(belief, NONE, NONE, CLEAR_BENCH, 0);
    const chances = cure.gather(belief.likely);
    expect(world.leastMinutes()).toBeLessThan(cure.unmeasured(chances, 'closed').minutes);
    expect(world.leastMinutes()).toBeGreaterThan(0.99 * cure.known(chances, 'closed'));
  });
});

describe('what work costs when nothing is measured', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const belief = updateBelief(predictor, [], [], { doubleShare: 0, unlisted: 0 });
  const cure = new RepairCosting(belief, NONE, NONE);
  const chances = cure.gather(belief.likely);

  // Heckerman, Breese, Rommelse (1995): with one fault, cost of work n counts for all that is not cured before n.
  test('is the sum over the order, each work weighed by the chance of coming to it', () => {
    const { order, minutes } = cure.unmeasured(chances, 'out');
    const share = cure.shares(chances);
    let left = share.reduce((s, v) => s + v, 0);
    let expected = 0;
    for (const need of order) {
      expected += left * cure.minutesOf(need, 'out');
      left -= share[cure.needs.indexOf(need)];
    }
    expect(minutes).toBeCloseTo(expected, 6);
  });

  test('is least in that order: any two neighbours changed cost more or as much', () => {
    const { order, minutes } = cure.unmeasured(chances, 'out');
    const share = cure.shares(chances);
    const cost = (list: typeof order): number => {
      let spent = 0;
      return list.reduce((sum, n) => sum + share[cure.needs.indexOf(n)] * (spent += cure.minutesOf(n, 'out')), 0);
    };
    for (let k = 0; k + 1 < order.length; k++) {
      const changed = [...order];
      [changed[k], changed[k + 1]] = [changed[k + 1], changed[k]];
      expect(cost(changed)).toBeGreaterThanOrEqual(minutes - 1e-9);
    }
  });

  test('a failed proof leaves what the work did not answer', () => {
    const need = cure.needs.find((n) => targetKey(n.target) === 'U4')!;
    const { chances: left, chance } = cure.failedWithout(chances, need);
    expect(chance).toBeCloseTo(1 - cure.shares(chances)[cure.needs.indexOf(need)], 2);
    expect(cure.shares(left)[cure.needs.indexOf(need)]).toBe(0);
    expect(left.reduce((s, v) => s + v, 0)).toBeCloseTo(1, 9);
  });

  test('parts and risk count as minutes at the bench’s own hour', () => {
    const { board } = predictor;
    const u8: RepairTarget = { kind: 'part', ref: 'U8' };
    const usual = repairCost(board, u8, {});
    expect(usual.weighedMinutes).toBeCloseTo(usual.minutes + usual.price + 0.15 * 300, 9);
    expect(repairCost(board, u8, { prices: { hour: 120 } }).weighedMinutes).toBeLessThan(usual.weighedMinutes);
    expect(repairCost(board, u8, {}, 0).weighedMinutes).toBeCloseTo(usual.minutes + usual.price, 9);
    expect(repairCost(board, { kind: 'image', ref: 'U9' }, {}).price).toBe(0);
  });
});

describe('tests against work', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const short: Reading[] = [
    { measurement: { kind: 'groundResistance', net: 'AON33' }, value: { kind: 'figure', value: 1.6 } },
    { measurement: { kind: 'groundResistance', net: 'VBUS_F' }, value: { kind: 'figure', value: 1.7 } },
    { measurement: { kind: 'groundResistance', net: 'PD18' }, value: { kind: 'figure', value: 1.6 } },
  ];

  test('with nothing known a test comes first', () => {
    const { repairFirst, tests } = rankActions(updateBelief(predictor, [], []), { ...at, access: 'closed' });
    expect(repairFirst).toBe(false);
    expect(tests[0].expectedMinutes).toBeGreaterThan(0);
  });

  test('where every pin of one chip is shorted, work on it comes first', () => {
    const { repairFirst, work } = rankActions(updateBelief(predictor, short, []), {
      ...at,
      access: 'out',
      taken: short,
    });
    expect([repairFirst, targetKey(work!.need.target)]).toEqual([true, 'U4']);
  });

  test('what a technician could do anyway is never worse than what is advised', () => {
    const { tests, work } = rankActions(updateBelief(predictor, short.slice(0, 1), []), { ...at, access: 'out' });
    const followed = tests.filter((t) => t.expectedMinutes !== undefined);
    expect(followed.length).toBeGreaterThan(3);
    for (const t of followed) expect(t.expectedMinutes).toBeGreaterThanOrEqual(tests[0].expectedMinutes!);
    expect(work!.expectedMinutes).toBeGreaterThan(0);
  });
});

test('a need is the part, its image alone, or what is outside the board', () => {
  const { faults } = Predictor.of(demoBoard('heronlog-4-c'));
  const need = (id: string): string => targetKey(faults.find((f) => f.id === id)!.mendedBy);
  expect(['U9/image', 'U9/dead', 'U4/core', OUTSIDE, 'outside/cable'].map(need)).toEqual([
    'U9/image',
    'U9',
    'U4',
    OUTSIDE,
    'outside/cable',
  ]);
});

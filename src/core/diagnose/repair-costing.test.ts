import { demoBoard } from '../../../demo/files';
import { entropyBits } from '../math';
import { conditioned, updateBelief } from './belief';
import { openingMinutes } from './access';
import { PART_KIND_DEFINITIONS, targetKey, type RepairTarget } from './faults';
import { priceOf, proofMinutes, repairCost } from './repair-cost';
import { Predictor } from './predictor';
import { RepairCosting } from './repair-costing';
import { likelyRows } from './likely';

const NONE: ReadonlySet<string> = new Set();
const predictor = Predictor.of(demoBoard('heronlog-4-c'));
const { board } = predictor;
const belief = updateBelief(
  predictor,
  [{ measurement: { kind: 'groundResistance', net: 'AON33' }, value: { kind: 'beep' } }],
  [],
);
const cure = new RepairCosting(belief, NONE, NONE);
const chances = cure.gather(belief.space.likely(belief.p, 0));

/** What no list holds is one need, wherever it is. */
const keyOf = (target: RepairTarget): string => (target.kind === 'unlisted' ? 'unlisted' : targetKey(target));

/** Chances where just these needs are there. */
function certainly(...needs: number[]): Float64Array {
  const place = cure.place(needs);
  const certain = new Float64Array(Math.max(place + 1, chances.length));
  certain[place] = 1;
  return certain;
}

/** Needs of each hypothesis, gathered the slow way. */
function slowShares(): Map<string, number> {
  const byNeeds = new Map<string, number>();
  belief.space.forEach((h, i, j) => {
    const needs = [i, j].filter((n) => n >= 0).map((n) => keyOf(belief.faults[n].mendedBy));
    const key = [...new Set(needs)].sort().join(' + ');
    byNeeds.set(key, (byNeeds.get(key) ?? 0) + belief.p[h]);
  });
  return byNeeds;
}

test('gathered chances equal summing every hypothesis by its needs', () => {
  const slow = slowShares();
  let checked = 0;
  cure.each(chances, (chance, needs) => {
    const key = needs.map((n) => keyOf(cure.needs[n - 1].target));
    const expected = slow.get([...key].sort().join(' + ')) ?? 0;
    expect(Math.abs(chance - expected)).toBeLessThan(1e-12);
    checked++;
  });
  expect(checked).toBeGreaterThan(100);
});

test('chances after an outcome equal those of the belief after it', () => {
  const { space } = belief;
  const likely = space.likely(belief.p, 0, belief.sets);
  const table = belief.case.table({ kind: 'functionTest', fn: 'charge' }, NONE, NONE);
  const rows = likelyRows(likely, table);
  for (const { given } of table.classes) {
    const quick = cure.gatherAfter(likely, rows, given);
    const after = conditioned(belief, table, given);
    const slow = cure.gather(space.likely(after.p, 0, after.sets));
    for (let k = 0; k < quick.length; k += 3) expect(quick[k]).toBeCloseTo(slow[k], 12);
  }
});

test('bits of what has to be done are the entropy of those sums, and less than the bits of the faults', () => {
  const bits = cure.bits(chances);
  expect(bits).toBeCloseTo(entropyBits([...slowShares().values()]), 9);
  expect(bits).toBeLessThan(entropyBits(belief.p));
});

test('knowing is never dearer than not knowing', () => {
  for (const access of ['closed', 'open', 'out'] as const)
    expect(cure.known(chances, access)).toBeLessThanOrEqual(cure.unmeasured(chances, access).minutes);
});

test('with everything known to be one part, both are the work, its opening and one proof', () => {
  const u4 = cure.needs.findIndex((n) => targetKey(n.target) === 'U4') + 1;
  const certain = certainly(u4);
  const minutes = cure.needs[u4 - 1].weighedMinutes + proofMinutes(board) + openingMinutes('closed');
  expect(cure.known(certain, 'closed')).toBeCloseTo(minutes, 9);
  expect(cure.unmeasured(certain, 'closed').minutes).toBeCloseTo(minutes, 9);
  expect(cure.bits(certain)).toBeCloseTo(0, 12);
});

test('two parts at once are the later of the two, not known; and one proof for both, known', () => {
  const numbers = ['U4', 'FL1'].map((name) => cure.needs.findIndex((n) => targetKey(n.target) === name) + 1);
  const [a, b] = numbers.sort((x, y) => x - y);
  const both = certainly(a, b);
  const [first, second] = [cure.needs[a - 1], cure.needs[b - 1]];
  expect(cure.known(both, 'out')).toBeCloseTo(first.weighedMinutes + second.weighedMinutes + proofMinutes(board), 9);
  expect(cure.unmeasured(both, 'out').minutes).toBeCloseTo(cure.known(both, 'out') + proofMinutes(board), 9);
  const { chances: left, chance } = cure.failedWithout(both, first);
  expect(chance).toBe(1);
  expect(cure.shares(left)[b - 1]).toBe(1);
});

test('what is off the board or mended needs nothing any more', () => {
  const without = new RepairCosting(belief, new Set(['U4']), new Set(['C14', 'U9/image']));
  const names = without.needs.map((n) => targetKey(n.target));
  for (const gone of ['U4', 'C14', 'U9/image']) expect(names).not.toContain(gone);
  expect(names).toContain('U9');
});

test('every kind of part has a price and a risk, dearer and riskier for what is large', () => {
  const kinds = PART_KIND_DEFINITIONS;
  for (const { work } of Object.values(kinds)) {
    expect(work.price).toBeGreaterThan(0);
    expect(work.harm).toBeGreaterThan(0);
    expect(work.harm).toBeLessThan(0.5);
  }
  expect(kinds.processor.work.harm).toBeGreaterThan(kinds.portController.work.harm);
  expect(kinds.portController.work.harm).toBeGreaterThan(kinds.capacitor.work.harm);
  expect(priceOf(30, {})).toBe(30);
  expect(priceOf(30, { prices: { hour: 120 } })).toBe(60);
  expect(repairCost(board, { kind: 'rail', rail: 'VIN' }, {}).harm).toBeGreaterThan(0);
  expect(repairCost(board, { kind: 'outside', what: 'cable' }, {})).toMatchObject({
    price: 0,
    harm: 0,
    onBoard: false,
  });
});

import { demoBoard } from '../../../demo/files';
import { seededRandom } from '../math';
import { updateBelief } from './belief';
import { Predictor } from './predictor';
import { byWorth, rankRepairs, targetName } from './repairs';

interface Item {
  readonly cureChance: number;
  readonly weighedMinutes: number;
}

/** Expected minutes until the one fault is mended, when repairs are tried in this order and each shows whether it cured. */
function expectedMinutes(order: readonly Item[]): number {
  let spent = 0;
  let expected = 0;
  for (const { cureChance, weighedMinutes } of order) {
    spent += weighedMinutes;
    expected += cureChance * spent;
  }
  return expected;
}

function permutations<T>(list: readonly T[]): T[][] {
  if (list.length < 2) return [[...list]];
  return list.flatMap((head, i) =>
    permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((tail) => [head, ...tail]),
  );
}

// Heckerman, Breese, Rommelse (1995), Decision-theoretic troubleshooting: for one fault and independent costs the order by
// p/C has the least expected cost.
test('the order by p/C costs as little as the best of all orders, on random single faults', () => {
  const random = seededRandom(42);
  for (let round = 0; round < 60; round++) {
    const n = 2 + Math.floor(random() * 5);
    const raw = Array.from({ length: n }, () => random() + 0.01);
    const total = raw.reduce((s, v) => s + v, 0);
    const items = raw.map((v): Item => ({ cureChance: v / total, weighedMinutes: 1 + 60 * random() }));
    const best = Math.min(...permutations(items).map(expectedMinutes));
    expect(expectedMinutes([...items].sort(byWorth))).toBeCloseTo(best, 9);
  }
});

test('the repairs of a board come in that order', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const repairs = rankRepairs(updateBelief(predictor, [], []), 'out', new Set());
  expect(repairs.length).toBeGreaterThan(5);
  expect(repairs).toEqual([...repairs].sort(byWorth));
});

test('what is done is not named again, and nothing cures more than certainly', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const belief = updateBelief(predictor, [], []);
  const repairs = rankRepairs(belief, 'out', new Set(['U4']));
  expect(repairs.some((r) => r.targets.some((t) => targetName(t) === 'U4'))).toBe(false);
  for (const r of repairs) expect(r.cureChance).toBeLessThanOrEqual(1);
});

test('opening the device costs its minutes once, for two parts as for one', () => {
  const predictor = Predictor.of(demoBoard('heronlog-4-c'));
  const belief = updateBelief(predictor, [], []);
  const minutes = (access: 'closed' | 'out'): number =>
    rankRepairs(belief, access, new Set()).find((r) => r.label === 'Replace F1')!.minutes;
  expect(minutes('closed') - minutes('out')).toBe(14);
});

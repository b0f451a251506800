import { seededRandom } from '../math';
import { ASSEMBLY_STATES } from '../board';
import { ASSEMBLY_MINUTES, orderProofs, OWN_RISK, type FunctionTest } from '.';

const random = seededRandom(61);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
const REFS = ['U1', 'U2', 'U3', 'L1', 'FL1', 'J1', 'Q1'];

function drawn(count: number): { tests: FunctionTest[]; risk: Map<string, number> } {
  const tests = Array.from({ length: count }, (_, k) => ({
    ...{ id: `t${k}`, minutes: 1 + Math.floor(9 * random()), assembly: pick(ASSEMBLY_STATES) },
    parts: REFS.filter(() => random() < 0.4),
  }));
  return { tests, risk: new Map(REFS.map((ref) => [ref, random() < 0.5 ? 0.3 * random() : 0.01])) };
}

/** The minutes of one order, counted outcome by outcome: every combination of bad parts and of failures without a part. */
function byOutcomes(order: readonly FunctionTest[], risk: ReadonlyMap<string, number>): number {
  const refs = [...risk.keys()];
  const level = (t: FunctionTest): number => ASSEMBLY_STATES.indexOf(t.assembly);
  const move = (from: number, to: number): number =>
    from < to
      ? ASSEMBLY_MINUTES.up.slice(from, to).reduce((a, b) => a + b, 0)
      : ASSEMBLY_MINUTES.down.slice(to, from).reduce((a, b) => a + b, 0);
  let sum = 0;
  for (let bad = 0; bad < 1 << refs.length; bad++) {
    const isBad = (ref: string): boolean => (bad & (1 << refs.indexOf(ref))) !== 0;
    const chance = refs.reduce((p, ref) => p * (isBad(ref) ? risk.get(ref)! : 1 - risk.get(ref)!), 1);
    let [left, at, minutes] = [1, 0, 0];
    for (const t of order) {
      minutes += left * (move(at, level(t)) + t.minutes);
      at = level(t);
      const fails = t.parts.some(isBad) ? 1 : OWN_RISK;
      minutes += left * fails * move(at, 0);
      left *= 1 - fails;
    }
    sum += chance * (minutes + left * move(at, 2));
  }
  return sum;
}

function* permutations<T>(list: readonly T[]): Generator<T[]> {
  if (list.length === 0) yield [];
  for (const [k, one] of list.entries())
    for (const rest of permutations([...list.slice(0, k), ...list.slice(k + 1)])) yield [one, ...rest];
}

test('the order is the best of all orders, its minutes those of the outcomes counted one by one', () => {
  for (let k = 0; k < 25; k++) {
    const { tests, risk } = drawn(2 + (k % 4));
    const { tests: order, expectedMinutes } = orderProofs(tests, risk);
    const asTests = order.map((o) => tests.find((t) => t.id === o.id)!);
    let least = Infinity;
    for (const other of permutations(tests)) least = Math.min(least, byOutcomes(other, risk));
    expect(byOutcomes(asTests, risk)).toBeCloseTo(least, 9);
    expect(expectedMinutes).toBeCloseTo(least, 9);
  }
});

test('the test most likely to send it back comes first among equals; a pass clears its parts for those after it', () => {
  const tests = ['a', 'b', 'c'].map((id) => ({ id, minutes: 2, parts: [] as string[], assembly: 'board' as const }));
  tests[1].parts.push('U4', 'U9');
  tests[2].parts.push('U4');
  const { tests: order } = orderProofs(
    tests,
    new Map([
      ['U4', 0.2],
      ['U9', 0.05],
    ]),
  );
  expect(order.map((t) => t.id)).toEqual(['b', expect.any(String), expect.any(String)]);
  expect(order[0].implicates[0].ref).toBe('U4');
  expect(order.find((t) => t.id === 'c')).toMatchObject({ clears: [], implicates: [] });
  expect(order.find((t) => t.id === 'c')!.failChance).toBeCloseTo(OWN_RISK, 12);
});

test('many tests are ordered state by state, each within its state by chance for its minutes', () => {
  const { tests, risk } = drawn(18);
  const order = orderProofs(tests, risk).tests;
  expect(new Set(order.map((t) => t.id)).size).toBe(18);
  const levels = order.map((t) => ASSEMBLY_STATES.indexOf(t.assembly));
  expect(levels).toEqual([...levels].sort((a, b) => a - b));
});

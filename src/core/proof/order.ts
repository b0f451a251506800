import type { PartRef } from '../identities';
import { ASSEMBLY_STATES, type AssemblyState } from '../board';

/** A function as something to try. */
export interface FunctionTest {
  readonly id: string;
  readonly minutes: number;
  /** Parts that it exercises: a pass clears them. */
  readonly parts: readonly string[];
  /** How far the device has to be put together for it. */
  readonly assembly: AssemblyState;
}

/** Minutes to put the device together from one state to the next, and to open it again. */
export interface AssemblyMinutes {
  readonly up: readonly [toPart: number, toWhole: number];
  readonly down: readonly [toBoard: number, toPart: number];
}

/** Engineering estimates; every device has its own. */
export const ASSEMBLY_MINUTES: AssemblyMinutes = { up: [4, 8], down: [2, 6] };

export interface OrderedTest {
  readonly id: string;
  readonly assembly: AssemblyState;
  /** Chance that it fails once all before it have passed. */
  readonly failChance: number;
  /** Parts that no test before it has cleared. */
  readonly clears: readonly string[];
  /** Which part a failure points to, likeliest first; what is left is none of them. */
  readonly implicates: readonly { readonly ref: PartRef; readonly p: number }[];
}

export interface ProofOrder {
  readonly tests: readonly OrderedTest[];
  /** Minutes until all have passed or the first has failed and the board is out again. */
  readonly expectedMinutes: number;
}

/** A function that fails though all its parts are good: cable, adapter, software. Engineering estimate. */
export const OWN_RISK = 0.005;
/** More tests than this are put in order step by step: all subsets would take seconds. */
const MOST_EXACT = 14;

/**
 * Orders tests so that the expected minutes to the first failure, opening again counted, or to the end are least. Parts
 * fail independently; a pass clears all parts of its test. Exact by dynamic programming over the sets of passed tests.
 * @param risk chance that a part is bad, by reference; parts that are not in it count as good.
 */
export function orderProofs(
  tests: readonly FunctionTest[],
  risk: ReadonlyMap<string, number>,
  minutes: AssemblyMinutes = ASSEMBLY_MINUTES,
): ProofOrder {
  const model = new OrderModel(tests, risk, minutes);
  const order = tests.length <= MOST_EXACT ? model.best() : model.stepwise();
  return { tests: model.told(order), expectedMinutes: model.expected(order) };
}

const levelOf = (state: AssemblyState): number => ASSEMBLY_STATES.indexOf(state);
const WHOLE = ASSEMBLY_STATES.length - 1;

class OrderModel {
  private readonly levels: readonly number[];

  constructor(
    private readonly tests: readonly FunctionTest[],
    private readonly risk: ReadonlyMap<string, number>,
    private readonly minutes: AssemblyMinutes,
  ) {
    this.levels = tests.map((t) => levelOf(t.assembly));
  }

  /** Chance that all tests of a set pass. */
  private survival(mask: number): number {
    const parts = new Set(this.tests.flatMap((t, k) => (mask & (1 << k) ? t.parts : [])));
    let chance = 1;
    for (const ref of parts) chance *= 1 - (this.risk.get(ref) ?? 0);
    for (let k = 0; k < this.tests.length; k++) if (mask & (1 << k)) chance *= 1 - OWN_RISK;
    return chance;
  }

  /** Minutes to bring the device from one state to another. */
  private move(from: number, to: number): number {
    let sum = 0;
    for (let level = from; level < to; level++) sum += this.minutes.up[level];
    for (let level = from; level > to; level--) sum += this.minutes.down[level - 1];
    return sum;
  }

  /** What a test costs after others: getting there, trying, and opening again should it fail. */
  private cost(test: number, level: number, failChance: number): number {
    const own = this.levels[test];
    return this.move(level, own) + this.tests[test].minutes + failChance * this.move(own, 0);
  }

  best(): number[] {
    const count = this.tests.length;
    const survival = Float64Array.from({ length: 1 << count }, (_, mask) => this.survival(mask));
    const states = WHOLE + 1;
    const least = new Float64Array((1 << count) * states);
    const choice = new Int8Array((1 << count) * states).fill(-1);
    for (let mask = (1 << count) - 1; mask >= 0; mask--) {
      for (let level = 0; level < states; level++) {
        const at = mask * states + level;
        least[at] = mask === (1 << count) - 1 ? this.move(level, WHOLE) : Infinity;
        for (let t = 0; t < count; t++) {
          if (mask & (1 << t)) continue;
          const next = mask | (1 << t);
          const pass = survival[next] / survival[mask];
          const sum = this.cost(t, level, 1 - pass) + pass * least[next * states + this.levels[t]];
          if (sum < least[at]) [least[at], choice[at]] = [sum, t];
        }
      }
    }
    const order: number[] = [];
    for (let mask = 0, level = 0; order.length < count;) {
      const t = choice[mask * states + level];
      order.push(t);
      mask |= 1 << t;
      level = this.levels[t];
    }
    return order;
  }

  /** State by state, in each the test with the most chance of failing for its minutes. */
  stepwise(): number[] {
    const order: number[] = [];
    const cleared = new Set<string>();
    const left = new Set(this.tests.keys());
    while (left.size > 0) {
      const lowest = Math.min(...[...left].map((t) => this.levels[t]));
      const [first] = [...left]
        .filter((t) => this.levels[t] === lowest)
        .map((t) => ({ t, value: this.failChance(t, cleared) / this.tests[t].minutes }))
        .sort((a, b) => b.value - a.value);
      order.push(first.t);
      left.delete(first.t);
      this.tests[first.t].parts.forEach((ref) => cleared.add(ref));
    }
    return order;
  }

  private failChance(test: number, cleared: ReadonlySet<string>): number {
    let pass = 1 - OWN_RISK;
    for (const ref of new Set(this.tests[test].parts)) if (!cleared.has(ref)) pass *= 1 - (this.risk.get(ref) ?? 0);
    return 1 - pass;
  }

  /** Expected minutes of an order. */
  expected(order: readonly number[]): number {
    let [sum, chance, level] = [0, 1, 0];
    const cleared = new Set<string>();
    for (const t of order) {
      const fails = this.failChance(t, cleared);
      sum += chance * this.cost(t, level, fails);
      chance *= 1 - fails;
      level = this.levels[t];
      this.tests[t].parts.forEach((ref) => cleared.add(ref));
    }
    return sum + chance * this.move(level, WHOLE);
  }

  told(order: readonly number[]): OrderedTest[] {
    const cleared = new Set<string>();
    return order.map((t) => {
      const { id, assembly, parts } = this.tests[t];
      const failChance = this.failChance(t, cleared);
      const clears = [...new Set(parts)].filter((ref) => !cleared.has(ref));
      const implicates = clears
        .map((ref) => ({ ref, p: (this.risk.get(ref) ?? 0) / failChance }))
        .filter(({ p }) => p > 0)
        .sort((a, b) => b.p - a.p);
      clears.forEach((ref) => cleared.add(ref));
      return { id, assembly, failChance, clears, implicates };
    });
  }
}

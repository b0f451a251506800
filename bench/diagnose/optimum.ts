import {
  FaultCase,
  OUTSIDE,
  accessFor,
  boardMeasurements,
  deeper,
  idealReading,
  measurementKindNames,
  openingMinutes,
  proofMinutes,
  testMinutes,
  updateBelief,
  repairMinutes,
  SOUND,
  targetKey,
  type Access,
  type Fault,
  type RepairTarget,
  type Measurement,
  type Practice,
  type Predictor,
} from '../../src/core/diagnose';
import { PART_KINDS } from '../../src/core/board';
import { playJob, type Choose, type Read } from './play';

/** Single faults only, parts that cost nothing, and readings that are hardly ever wrong: what can be searched through. */
export const CLEAR_BENCH: Practice = {
  doubleShare: 0,
  deadOnArrival: 0,
  unlisted: 0,
  prices: { parts: Object.fromEntries(PART_KINDS.map((kind) => [kind, 0])) },
  errorRates: Object.fromEntries(measurementKindNames.map((kind) => [kind, 0.001])),
};

/** Faults that no test tells apart and the same work mends. */
export interface Case {
  readonly fault: Fault;
  readonly need: RepairTarget;
  readonly chance: number;
}

interface WorldTest {
  readonly m: Measurement;
  /** Cases that share an outcome, as bit sets. */
  readonly cells: readonly number[];
}

/** Rarer cases are left out of the puzzle, or it could not be searched; the application still reckons with them. */
const LEAST_CHANCE = 0.012;

/** A board as a puzzle: cases with their chances, tests that split them, work that cures some of them. */
export class World {
  readonly cases: readonly Case[];
  private readonly tests: readonly WorldTest[];
  private readonly works: readonly { readonly mask: number; readonly minutes: number; readonly onBoard: boolean }[];
  private readonly kept = new Map<number, number>();

  constructor(readonly predictor: Predictor) {
    const { board } = predictor;
    const faultCase = FaultCase.of(predictor, []);
    const { p } = updateBelief(predictor, [], [], CLEAR_BENCH);
    const measurements = [...boardMeasurements(board), ...lifts(faultCase.faults)];
    const outcome = (m: Measurement, fault: number): number => {
      const table = faultCase.table(m, new Set(), new Set());
      const row = table.rowOf[table.keyOf[fault] * table.keys];
      return table.classes.reduce((best, c, k) => (c.given[row] > table.classes[best].given[row] ? k : best), 0);
    };
    const groups = new Map<string, { fault: Fault; index: number; chance: number }>();
    const shown = (index: number): string => measurements.map((m) => outcome(m, index)).join(' ');
    const sound = shown(faultCase.faults.findIndex((f) => f.id === OUTSIDE));
    faultCase.faults.forEach((fault, index) => {
      // What comes and goes, and what may read anything, has no one outcome.
      if (fault.seen !== undefined || fault.unlistedAt !== undefined) return;
      const key = `${targetKey(fault.mendedBy)} ${shown(index)}`;
      // A fault that shows in no reading is no complaint either.
      if (fault.id !== OUTSIDE && shown(index) === sound) return;
      const group = groups.get(key);
      if (group) group.chance += p[index];
      else groups.set(key, { fault, index, chance: p[index] });
    });
    const common = [...groups.values()].filter((g) => g.chance >= LEAST_CHANCE);
    const seen = common.reduce((sum, g) => sum + g.chance, 0);
    const list = common.map((g) => ({ ...g, chance: g.chance / seen }));
    if (list.length > 30) throw new Error(`too many cases to search: ${list.length}`);
    this.cases = list.map(({ fault, chance }) => ({ fault, chance, need: fault.mendedBy }));
    const bitsWhere = (holds: (k: number) => boolean): number =>
      list.reduce((mask, _, k) => (holds(k) ? mask | (1 << k) : mask), 0);
    this.tests = measurements
      .map((m) => {
        const of = list.map(({ index }) => outcome(m, index));
        return { m, cells: [...new Set(of)].map((o) => bitsWhere((k) => of[k] === o)) };
      })
      .filter((t) => t.cells.length > 1);
    const needs = new Map(this.cases.map((c) => [targetKey(c.need), c.need]));
    this.works = [...needs].map(([key, need]) => ({
      mask: bitsWhere((k) => targetKey(this.cases[k].need) === key),
      ...repairMinutes(board, need),
    }));
  }

  /** Least expected minutes to a proven cure over all orders of tests and work, from the closed device. */
  leastMinutes(): number {
    return this.least((1 << this.cases.length) - 1, 'closed');
  }

  private weight(mask: number): number {
    let sum = 0;
    this.cases.forEach((c, k) => (sum += mask & (1 << k) ? c.chance : 0));
    return sum;
  }

  /** What no order can fall below: everything known at once. */
  private floor(mask: number, access: Access): number {
    const proof = proofMinutes(this.predictor.board);
    return this.works.reduce((sum, w) => {
      const both = mask & w.mask;
      return both ? sum + this.weight(both) * (w.minutes + proof + (w.onBoard ? openingMinutes(access) : 0)) : sum;
    }, 0);
  }

  /** Least minutes, weighted by chance, from a set of cases that are still possible. Exact; kept by set and access. */
  private least(mask: number, access: Access): number {
    if (mask === 0) return 0;
    const key = mask * 3 + ORDER.indexOf(access);
    const known = this.kept.get(key);
    if (known !== undefined) return known;
    const { board } = this.predictor;
    const proof = proofMinutes(board);
    const weight = this.weight(mask);
    let best = Infinity;
    for (const w of this.works) {
      if (!(mask & w.mask)) continue;
      const now = weight * (w.minutes + proof + (w.onBoard ? openingMinutes(access) : 0));
      const then: Access = w.onBoard ? 'out' : access;
      const rest = mask & ~w.mask;
      if (now + this.floor(rest, then) < best) best = Math.min(best, now + this.least(rest, then));
    }
    for (const { m, cells } of this.tests) {
      const parts = cells.map((cell) => mask & cell).filter((part) => part !== 0);
      if (parts.length < 2) continue;
      const then = deeper(access, accessFor(m));
      let sum = weight * testMinutes(board, m, access);
      let floors = parts.reduce((s, part) => s + this.floor(part, then), 0);
      for (const part of parts) {
        if (sum + floors >= best) break;
        floors -= this.floor(part, then);
        sum += this.least(part, then);
      }
      if (sum + floors < best) best = sum;
    }
    this.kept.set(key, best);
    return best;
  }
}

const ORDER: readonly Access[] = ['closed', 'open', 'out'];

/** Every part that can be shorted, taken off. */
function lifts(faults: readonly Fault[]): Measurement[] {
  const found = new Map<string, Measurement>();
  for (const f of faults)
    for (const e of f.effects)
      if (e.kind === 'shunt' && f.ref !== '')
        found.set(`${f.ref} ${e.net}`, { kind: 'liftedResistance', ref: f.ref, net: e.net });
  return [...found.values()];
}

/** Expected minutes of a way of choosing, over the cases of the board, error-free. */
export function minutesOf(world: World, choose: Choose): number {
  const { predictor } = world;
  return world.cases.reduce((sum, { fault, chance }) => {
    const read: Read = (m, faults, state) => ({ ...idealReading(predictor, m, faults[0] ?? SOUND), ...state });
    const { minutes, proven, steps } = playJob(predictor, [fault], choose, read, CLEAR_BENCH, 0);
    if (!proven) throw new Error(`${fault.id} was not found: ${steps.join(', ')}`);
    return sum + chance * minutes;
  }, 0);
}

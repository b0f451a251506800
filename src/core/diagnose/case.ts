import type { PartRef } from '../identities';
import { partByRef } from '../board';
import { OUTSIDE, fittingFaults, isGone, workNames, type Fault } from './faults';
import { MOST_CLASSES, groupFaults, type FaultClasses } from './classes';
import { measurementId } from './measurement';
import { definitionOf, type Measurement } from './measurements/registry';
import { TestTable, assignRows } from './outcome-partition';
import { verdict } from './prediction';
import { OutcomeTables } from './outcome-tables';
import type { Predictor } from './predictor';

const NONE: ReadonlySet<string> = new Set();

/** States of one board that are kept; a job passes through a handful. */
const MOST_STATES = 48;
/** Ways of grouping the faults of a case that are kept. */
const MOST_GROUPINGS = 8;
/** Cases of one board that are kept: sets of replaced parts, of the jobs that are looked at now. A case is a few megabytes. */
const MOST_CASES = 16;

/**
 * The faults that a job has to reckon with, those of newly fitted parts and what no list holds included, and the tables of
 * its tests in every state the board was in.
 */
export class FaultCase {
  private readonly states = new Map<string, OutcomeTables>();

  private constructor(
    readonly predictor: Predictor,
    readonly faults: readonly Fault[],
  ) {}

  private static readonly kept = new WeakMap<Predictor, Map<string, FaultCase>>();

  /**
   * The case of a board on which some parts are new; kept, since it does not depend on readings.
   * @param replaced what was replaced, a part as often as it was.
   */
  static of(predictor: Predictor, replaced: Iterable<string>): FaultCase {
    let cases = FaultCase.kept.get(predictor);
    if (!cases) FaultCase.kept.set(predictor, (cases = new Map<string, FaultCase>()));
    const fresh = [...replaced].filter((name) => partByRef(predictor.board, name)).sort();
    const key = fresh.join(' ');
    const found = cases.get(key) ?? new FaultCase(predictor, allFaults(predictor, fresh));
    // The latest used stands last; the first goes when there are too many.
    cases.delete(key);
    cases.set(key, found);
    if (cases.size > MOST_CASES) cases.delete(cases.keys().next().value!);
    return found;
  }

  /**
   * Faults that neither the board's own tests nor those that were taken tell apart, as one.
   * @param worked parts that were off, replaced or mended. @param taken keys of every fault in the tests that were taken.
   */
  classes(worked: ReadonlySet<string>, taken: readonly Uint16Array[]): FaultClasses {
    const { faults } = this;
    const own = (this.own ??=
      faults.length <= MOST_CLASSES
        ? new Set<Uint16Array>()
        : new Set(this.predictor.tests.map((m) => this.table(m, NONE, []).keyOf)));
    // What was taken of the board's own tests on the board as it came tells nothing apart that they do not.
    const more = own.size === 0 ? [] : taken.filter((keys) => !own.has(keys));
    const key =
      own.size === 0 ? '' : `${[...worked].sort().join(' ')}|${more.map((keys) => this.numberOf(keys)).join(' ')}`;
    let found = this.grouped.get(key);
    if (!found) {
      if (this.grouped.size >= MOST_GROUPINGS) this.grouped.delete(this.grouped.keys().next().value!);
      this.grouped.set(key, (found = groupFaults(faults, [...own, ...more], worked)));
    }
    return found;
  }

  /** Keys of every fault in the board's own tests. */
  private own?: ReadonlySet<Uint16Array>;
  /** Classes by what told faults apart; the last few. */
  private readonly grouped = new Map<string, FaultClasses>();
  private readonly numbers = new Map<Uint16Array, number>();

  private numberOf(keys: Uint16Array): number {
    let number = this.numbers.get(keys);
    if (number === undefined) this.numbers.set(keys, (number = this.numbers.size));
    return number;
  }

  /**
   * The table of a proof: the complaint is gone where every fault is.
   * @param cleared what was replaced or mended by then, a target as often as it was worked on.
   */
  proofTable(cleared: Iterable<string>): TestTable {
    const done = new Set(workNames(cleared));
    const keyOf = Uint16Array.from(this.faults, (f) => Number(f.id !== OUTSIDE && !isGone(f, NONE, done)));
    const partition = {
      ...{ keyOf, keys: 2 },
      rowName: (a: number, b: number) => Math.max(a, b),
      predict: (...keys: number[]) => verdict(keys.some((k) => k > 0) ? PROOF_FAILS.faulty : PROOF_FAILS.sound),
    };
    return new TestTable(partition, assignRows(partition));
  }

  /**
   * The table of a test on the board with some parts off, and some faults mended.
   * @param cleared what was replaced or mended, a target as often as it was worked on.
   */
  table(m: Measurement, absent: ReadonlySet<PartRef>, cleared: Iterable<string>): TestTable {
    const other = definitionOf(m).actsAs?.(m);
    if (other) return this.table(other.measurement as Measurement, new Set([...absent, other.without]), cleared);
    const done = workNames(cleared);
    const key = `${[...absent].sort().join(' ')}|${done.sort().join(' ')}`;
    let state = this.states.get(key);
    if (!state) {
      if (this.states.size >= MOST_STATES) this.states.delete(this.states.keys().next().value!);
      this.states.set(key, (state = new OutcomeTables(this.predictor, this.faults, absent, new Set(done))));
    }
    return state.of(m, measurementId(m));
  }
}

/** A board with a fault fails its proof, and a sound one passes: but for what a proof overlooks. Engineering estimates. */
const PROOF_FAILS = { faulty: 0.95, sound: 0.03 };

/** The faults of a board, of each of its new parts, and what no list holds. */
function allFaults(predictor: Predictor, fresh: readonly string[]): Fault[] {
  const { board, faults, unlisted } = predictor;
  const times = new Map<string, number>();
  const fitted = fresh.flatMap((ref) => {
    const nth = (times.get(ref) ?? 0) + 1;
    times.set(ref, nth);
    const own = faults.filter((f) => f.ref === ref && f.mendedBy.kind !== 'joints');
    return fittingFaults(board, ref, nth, own);
  });
  return [...faults, ...unlisted, ...fitted];
}

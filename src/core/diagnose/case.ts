import { partByRef } from '../board';
import type { Fault } from './faults';
import { measurementId } from './measurement';
import { definitionOf, type Measurement } from './measurements/registry';
import type { TestTable } from './outcome-partition';
import { OutcomeTables } from './outcome-tables';
import type { Predictor } from './predictor';
import { HypothesisSpace } from './space';

/** States of one board that are kept; a job passes through a handful. */
const MOST_STATES = 48;
/** Cases of one board that are kept: sets of replaced parts, of the jobs that are looked at now. A case is a few megabytes. */
const MOST_CASES = 16;

/**
 * The faults that a job has to reckon with, those of newly fitted parts included, and the tables of its tests in every
 * state the board was in.
 */
export class FaultCase {
  readonly space: HypothesisSpace;
  private readonly states = new Map<string, OutcomeTables>();

  private constructor(
    readonly predictor: Predictor,
    readonly faults: readonly Fault[],
  ) {
    this.space = new HypothesisSpace(faults);
  }

  private static readonly kept = new WeakMap<Predictor, Map<string, FaultCase>>();

  /** The case of a board on which some parts are new; kept, since it does not depend on readings. */
  static of(predictor: Predictor, replaced: Iterable<string>): FaultCase {
    let cases = FaultCase.kept.get(predictor);
    if (!cases) FaultCase.kept.set(predictor, (cases = new Map<string, FaultCase>()));
    const fresh = [...new Set(replaced)].filter((name) => partByRef(predictor.board, name)).sort();
    const key = fresh.join(' ');
    const found = cases.get(key) ?? new FaultCase(predictor, [...predictor.faults, ...newFaults(predictor, fresh)]);
    // The latest used stands last; the first goes when there are too many.
    cases.delete(key);
    cases.set(key, found);
    if (cases.size > MOST_CASES) cases.delete(cases.keys().next().value!);
    return found;
  }

  /** The table of a test on the board with some parts off, and some faults mended. */
  table(m: Measurement, absent: ReadonlySet<string>, cleared: ReadonlySet<string>): TestTable {
    const other = definitionOf(m).actsAs?.(m);
    if (other) return this.table(other.measurement as Measurement, new Set([...absent, other.without]), cleared);
    const key = `${[...absent].sort().join(' ')}|${[...cleared].sort().join(' ')}`;
    let state = this.states.get(key);
    if (!state) {
      if (this.states.size >= MOST_STATES) this.states.delete(this.states.keys().next().value!);
      this.states.set(key, (state = new OutcomeTables(this.predictor, this.faults, absent, cleared)));
    }
    return state.of(m, measurementId(m));
  }
}

/** The faults that a new part brings along if it is bad out of the packet. */
const newFaults = (predictor: Predictor, fresh: readonly string[]): Fault[] =>
  predictor.faults
    .filter((f) => fresh.includes(f.ref))
    .map((f) => ({ ...f, id: `${f.id}/new`, fresh: true, words: f.words.replace(f.ref, `New ${f.ref}`) }));

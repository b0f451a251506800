import type { Effect, Fault } from './faults';
import { definitionOf, type Measurement } from './measurements/registry';
import { assignRows, buildTable, type OutcomePartition, type RowLayout, type TestTable } from './outcome-partition';
import { Partitioner } from './partitioner';
import { effectsText } from './power-table';
import type { Prediction } from './prediction';
import type { Predictor } from './predictor';

const NONE: ReadonlySet<string> = new Set();

/**
 * Tables of all tests for one state of the board: which parts are off, which were replaced. Each is built when it is
 * first asked for. The plain {@link Predictor} says what a row reads; the partition only says which pairs share a row.
 */
export class OutcomeTables {
  private readonly tables = new Map<string, TestTable>();
  private readonly layouts = new Map<string, RowLayout>();
  private readonly partitioner: Partitioner;

  constructor(
    private readonly predictor: Predictor,
    faults: readonly Fault[],
    private readonly absent: ReadonlySet<string>,
    cleared: ReadonlySet<string>,
  ) {
    this.partitioner = new Partitioner(predictor, faults, absent, cleared);
  }

  /** @param id the measurement's own id, made by the caller once. */
  of(m: Measurement, id: string): TestTable {
    let table = this.tables.get(id);
    if (!table) {
      const { effects, ...faults } = definitionOf(m).partition(this.partitioner, m);
      const partition = { ...faults, predict: (a: number, b: number) => this.predict(m, effects[a], effects[b]) };
      this.tables.set(id, (table = buildTable(partition, this.layoutOf(partition))));
    }
    return table;
  }

  private layoutOf(partition: OutcomePartition): RowLayout {
    const { sharedRows } = partition;
    if (sharedRows === undefined) return assignRows(partition);
    let layout = this.layouts.get(sharedRows);
    if (!layout) this.layouts.set(sharedRows, (layout = assignRows(partition)));
    return layout;
  }

  /** The prediction for two sets of effects together, by the plain predictor. */
  private predict(m: Measurement, first: readonly Effect[], second: readonly Effect[]): Prediction {
    const effects = [...first, ...second];
    const id = effectsText(effects) || 'sound';
    const fault: Fault = { id, ref: '', words: '', weight: 0, effects, mendedBy: { kind: 'nothing' } };
    return this.predictor.predict(m, fault, this.absent, NONE);
  }
}

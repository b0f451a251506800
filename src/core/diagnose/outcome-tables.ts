import type { PartRef } from '../identities';
import type { Effect, Fault } from './faults';
import { definitionOf, type Measurement } from './measurements/registry';
import { islandOf } from './islands';
import { TestTable, assignRows, type Marked, type OutcomePartition, type RowLayout } from './outcome-partition';
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
    private readonly faults: readonly Fault[],
    private readonly absent: ReadonlySet<PartRef>,
    cleared: ReadonlySet<string>,
  ) {
    this.partitioner = new Partitioner(predictor, faults, absent, cleared);
  }

  /** @param id the measurement's own id, made by the caller once. */
  of(m: Measurement, id: string): TestTable {
    let table = this.tables.get(id);
    if (!table) {
      const { effects, ...faults } = definitionOf(m).partition(this.partitioner, m);
      const touched = this.touchedBy(m);
      const predict = (...keys: number[]): Prediction => this.predict(m, ...keys.map((k) => effects[k]));
      const partition = { ...faults, predict };
      this.tables.set(
        id,
        (table = new TestTable(partition, this.layoutOf(partition), this.marksFor(m, touched), touched)),
      );
    }
    return table;
  }

  /** How a test meets the faults that are not plainly there or not. */
  private marksFor(m: Measurement, touched: ReadonlySet<string>): (fault: number) => Marked | undefined {
    const { meetsAlways } = definitionOf(m);
    return (i) => {
      const { unlistedAt, seen } = this.faults[i];
      if (unlistedAt === null) return { unlisted: 'anywhere' };
      if (unlistedAt !== undefined) return touched.has(unlistedAt) ? { unlisted: 'here' } : undefined;
      return seen === undefined || meetsAlways ? undefined : { seen };
    };
  }

  private touchedBy(m: Measurement): ReadonlySet<string> {
    const { board } = this.predictor;
    const nets = definitionOf(m).touches(board, m);
    return new Set(nets.flatMap((net) => [...islandOf(board, net, this.absent)]));
  }

  private layoutOf(partition: OutcomePartition): RowLayout {
    const { sharedRows } = partition;
    if (sharedRows === undefined) return assignRows(partition);
    let layout = this.layouts.get(sharedRows);
    if (!layout) this.layouts.set(sharedRows, (layout = assignRows(partition)));
    return layout;
  }

  /** The prediction for sets of effects together, by the plain predictor. */
  private predict(m: Measurement, ...lists: readonly (readonly Effect[])[]): Prediction {
    const effects = lists.flat();
    const id = effectsText(effects) || 'sound';
    const fault: Fault = { id, ref: '', label: '', weight: 0, effects, mendedBy: { kind: 'nothing' } };
    return this.predictor.predict(m, fault, this.absent, NONE);
  }
}

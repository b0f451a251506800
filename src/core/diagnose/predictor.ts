import type { PartRef } from '../identities';
import type { Board } from '../board';
import { CircuitModel } from './circuit-model';
import { SOUND, isGone, singleFaults, unlistedFaults, type Fault } from './faults';
import { definitionOf, type Measurement } from './measurements/registry';
import { seenAtTimes, type Prediction } from './prediction';

/** Predicts every reading of a board for any set of effects; the circuit behind it is shared by every job on the board. */
export class Predictor extends CircuitModel {
  /** Every single fault of the board that is listed. */
  readonly faults: readonly Fault[];
  /** What may be wrong that no list holds. */
  readonly unlisted: readonly Fault[];

  private static readonly cached = new WeakMap<Board, Predictor>();

  /** The predictor of a board, made once: its networks and predictions serve every job on that board. */
  static of(board: Board): Predictor {
    let predictor = Predictor.cached.get(board);
    if (!predictor) Predictor.cached.set(board, (predictor = new Predictor(board)));
    return predictor;
  }

  constructor(board: Board) {
    super(board);
    this.faults = singleFaults(board);
    this.unlisted = unlistedFaults(board);
  }

  /**
   * @param fault the fault that is assumed; its effects are ignored when its part is off or has been replaced.
   * @param absent parts that are off the board.
   * @param cleared parts that were replaced by good ones, or single fault ids that were mended (a rewritten image).
   */
  predict(m: Measurement, fault: Fault, absent: ReadonlySet<PartRef>, cleared: ReadonlySet<string>): Prediction {
    const kind = definitionOf(m);
    const other = kind.actsAs?.(m);
    if (other)
      return this.predict(other.measurement as Measurement, fault, new Set([...absent, other.without]), cleared);
    const active = isGone(fault, absent, cleared) ? { ...fault, id: 'sound', effects: [] } : fault;
    const met = kind.predict(this, m, active, absent);
    const isAtTimes = active.seen !== undefined && !kind.meetsAlways && active.effects.length > 0;
    return isAtTimes ? seenAtTimes(active.seen, met, kind.predict(this, m, SOUND, absent)) : met;
  }
}

import type { PartRef } from '../identities';
import type { Board } from '../board';
import { CircuitModel } from './circuit-model';
import { SOUND, isGone, singleFaults, unlistedFaults, type Fault } from './faults';
import { MEASUREMENT_KINDS, definitionOf, type Measurement } from './measurements/registry';
import {
  NOTHING_OPENED,
  faultsWithin,
  isWithin,
  neighbourhoodOf,
  openedBy,
  openedKey,
  type Neighbourhood,
  type Opened,
} from './neighbourhood';
import { seenAtTimes, type Prediction } from './prediction';
import type { Reading } from './reading';

/** Ways of opening one large board that are kept: those of the jobs that are looked at now. */
const MOST_OPENED = 8;

/** Predicts every reading of a board for any set of effects; the circuit behind it is shared by every job on the board. */
export class Predictor extends CircuitModel {
  /** What of a large board is modelled whole; undefined where all of it is. */
  readonly neighbourhood: Neighbourhood | undefined;
  /** Every single fault that is listed and shows in what is modelled. */
  readonly faults: readonly Fault[];
  /** The tests that the board offers there. */
  readonly tests: readonly Measurement[];
  /** What may be wrong that no list holds. */
  readonly unlisted: readonly Fault[];

  private static readonly cached = new WeakMap<Board, Map<string, Predictor>>();

  /**
   * The predictor of a board, made once: its networks and predictions serve every job on that board.
   * @param opened what beyond the neighbourhood counts too; nothing on a board that is modelled whole.
   */
  static of(board: Board, opened: Opened = NOTHING_OPENED): Predictor {
    let kept = Predictor.cached.get(board);
    if (!kept) Predictor.cached.set(board, (kept = new Map<string, Predictor>()));
    const key = openedKey(opened);
    const predictor = kept.get(key) ?? new Predictor(board, opened);
    if (!kept.has(key) && kept.size >= MOST_OPENED) kept.delete([...kept.keys()][1]);
    kept.set(key, predictor);
    return predictor;
  }

  constructor(
    board: Board,
    private readonly opened: Opened = NOTHING_OPENED,
  ) {
    super(board);
    const near = (this.neighbourhood = neighbourhoodOf(board, opened));
    const listed = singleFaults(board);
    const offered = MEASUREMENT_KINDS.flatMap((k) => k.offered(board));
    this.faults = near ? faultsWithin(board, near, listed) : listed;
    this.tests = near ? offered.filter((m) => isWithin(near, m)) : offered;
    this.unlisted = unlistedFaults(board, near?.nets);
  }

  /**
   * The predictor that also counts what was read, named or worked on beyond the neighbourhood.
   * @param worked parts that are off or new.
   */
  openedFor(readings: readonly Pick<Reading, 'measurement' | 'value'>[], worked: Iterable<string>): Predictor {
    if (!this.neighbourhood) return this;
    const { nets, parts } = openedBy(this.board, this.neighbourhood, readings, worked);
    if (nets.length + parts.length === 0) return this;
    return Predictor.of(this.board, {
      nets: [...this.opened.nets, ...nets],
      parts: [...this.opened.parts, ...parts],
    });
  }

  override namesPart(ref: PartRef): boolean {
    return this.neighbourhood?.parts.has(ref) ?? true;
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

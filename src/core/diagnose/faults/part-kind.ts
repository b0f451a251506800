import type { Board, Part, PartKind } from '../../board';
import type { Fault } from './fault';
import type { HistoryFlag } from './story';

/** What replacing a part of a kind costs. */
export interface PartWork {
  /** Minutes to take it off, and again to put a new one on. */
  readonly minutes: number;
  /** A new one, in the shop's money; a bench sets its own. */
  readonly price: number;
  /** Chance that taking it off and putting a new one on harms the board for good. */
  readonly harm: number;
}

/**
 * One kind of part: how it fails, how often against the others, how the owner's story shifts that, and what mending it
 * costs. Weights are relative odds per part: engineering estimates after the order in which such boards fail in
 * practice; they are shown to the user and shifted by the job's history. So are minutes, prices and harm.
 */
export interface PartKindDefinition {
  readonly kind: PartKind;
  readonly faults: (board: Board, part: Part) => readonly Fault[];
  readonly work: PartWork;
  /** Factors of the story. Directions are common practice; the sizes are engineering estimates. */
  readonly story: Readonly<Partial<Record<HistoryFlag, number>>>;
}

export const definePartKind = (definition: PartKindDefinition): PartKindDefinition => definition;

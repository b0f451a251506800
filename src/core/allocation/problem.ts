import type { DonorId, JobNumber } from '../identities';

/** One place in the queue that needs a chip. */
export interface AllocationNeed {
  readonly id: string;
  readonly job: JobNumber;
  /** For example `Job 31, U4: port controller`. */
  readonly words: string;
}

/** Chips that are all alike for the queue: a lot, loose chips, or some of a donor. */
export interface Supply {
  readonly id: string;
  readonly words: string;
  /** How many there are; undefined: as many as are bought. */
  readonly count?: number;
  /** The donor that has to be opened for it. */
  readonly donor?: DonorId;
}

/** One way to meet a need. */
export interface AllocationOption {
  readonly need: string;
  readonly supply: string;
  /** Expected cost without opening a donor: part, work, and what a failure would cost, in the shop's money. */
  readonly cost: number;
  /** Chance that it works. */
  readonly chance: number;
}

export interface DonorOffer {
  readonly id: string;
  readonly words: string;
  /** What opening it costs: the board, and the minutes. */
  readonly cost: number;
}

export interface AllocationProblem {
  readonly needs: readonly AllocationNeed[];
  readonly supplies: readonly Supply[];
  readonly donors: readonly DonorOffer[];
  readonly options: readonly AllocationOption[];
}

export interface AllocationPlan {
  readonly cost: number;
  /** Donors to open. */
  readonly open: readonly string[];
  readonly assigned: readonly AllocationOption[];
  /** Needs that nothing can meet together with the others. */
  readonly unmet: readonly string[];
}

import type { PartRef } from '../../identities';
import {
  DEFAULT_PRACTICE,
  Predictor,
  suspects,
  updateBelief,
  type HistoryFlag,
  type JobPractice,
} from '../../diagnose';
import type { Board } from '../../board';

/** A part whose odds the owner's story moves, before anything is measured. */
export interface StoryShift {
  readonly ref: PartRef;
  readonly label: string;
  readonly p: number;
  /** Odds without the story. */
  readonly before: number;
}

/** The likeliest parts under the story alone. */
export function storyShift(
  board: Board,
  history: readonly HistoryFlag[],
  practice: JobPractice = DEFAULT_PRACTICE,
  most = 6,
): StoryShift[] {
  const predictor = Predictor.of(board);
  const before = new Map(
    suspects(updateBelief(predictor, [], [], { ...practice, again: undefined })).map((s) => [s.ref, s.p]),
  );
  return suspects(updateBelief(predictor, [], history, practice))
    .slice(0, most)
    .map(({ ref, label, p }) => ({ ref, label, p, before: before.get(ref) ?? 0 }));
}

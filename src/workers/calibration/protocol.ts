import type { AskedTrial, Calibration, Trial, loggedBy } from '@/core/calibration';
import type { Station } from '@/core/heat';

/** Trials of one station: plain data in, plain data out. */
export interface CalibrationRequest {
  readonly station: Station;
  readonly trials: readonly Trial[];
}

export type CalibrationReply =
  | { readonly kind: 'progress' }
  | {
      readonly kind: 'done';
      /** Missing where the trials cannot tell the parameters apart; the reason is in words. */
      readonly calibration?: Calibration;
      readonly refused?: string;
      readonly next: AskedTrial;
      /** What the found station would have shown, for every log of the trials in their order. */
      readonly computed?: readonly ReturnType<typeof loggedBy>[];
    }
  | { readonly kind: 'problem'; readonly message: string };

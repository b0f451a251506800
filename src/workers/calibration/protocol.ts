import type { AskedTrial, Calibration, Trial } from '@/core/calibration';
import type { Station } from '@/core/heat';

/** One probe over whole seconds. */
export interface ProbeCurve {
  readonly name: string;
  readonly readC: readonly number[];
}

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
      readonly computed?: readonly (readonly ProbeCurve[])[];
    }
  | { readonly kind: 'problem'; readonly words: string };

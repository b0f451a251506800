import type { AskedTrial, Calibration, Trial, loggedBy } from '@/core/calibration';
import type { Station } from '@/core/heat';
import { defineWorkerTask } from '../task';

/** Trials of one station. */
export interface CalibrationRequest {
  readonly station: Station;
  readonly trials: readonly Trial[];
}

export interface StationFit {
  /** Missing where the trials cannot tell the parameters apart; the reason is in words. */
  readonly calibration?: Calibration;
  readonly refused?: string;
  readonly next: AskedTrial;
  /** What the found station would have shown, for every log of the trials in their order. */
  readonly computed?: readonly ReturnType<typeof loggedBy>[];
}

/** Fits a station to its trials, and finds the trial that would help most. */
export const calibrationTask = defineWorkerTask<CalibrationRequest, StationFit>({
  worker: () => new Worker(new URL('./calibration.worker.ts', import.meta.url), { type: 'module' }),
  crashed: 'The calibration’s worker ended unexpectedly. Try again.',
});

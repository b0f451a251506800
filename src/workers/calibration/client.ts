import { runInWorker, type Started } from '../run';
import type { CalibrationReply, CalibrationRequest } from './protocol';

/** Fits a station to its trials in a worker, and finds the trial that would help most. */
export function calibrateInWorker(request: CalibrationRequest): Started<CalibrationReply> {
  const worker = new Worker(new URL('./calibration.worker.ts', import.meta.url), { type: 'module' });
  return runInWorker<CalibrationRequest, CalibrationReply>(
    worker,
    request,
    () => {},
    'The calibration’s worker ended unexpectedly. Try again.',
  );
}

import { fitStation, loggedBy, nextTrial } from '@/core/calibration';
import { ok, problemText } from '@/core/result';
import { serveTask } from '../serve';
import type { CalibrationRequest, StationFit, calibrationTask } from './task';

serveTask<typeof calibrationTask>({ stopped: 'The calibration stopped', compute: (request) => ok(fitOf(request)) });

function fitOf({ station, trials }: CalibrationRequest): StationFit {
  const next = nextTrial(station, trials);
  if (trials.length === 0) return { next };
  const fit = fitStation(station, trials);
  if (!fit.ok) return { refused: problemText(fit.problems), next };
  const computed = trials.flatMap((t) => (t.kind === 'log' ? [loggedBy(station, fit.value, t)] : []));
  return { calibration: fit.value, next, computed };
}

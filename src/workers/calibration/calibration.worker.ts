import { blowCoupon, fitStation, nextTrial, type Calibration, type Trial } from '@/core/calibration';
import type { Station } from '@/core/heat';
import { problemText } from '@/core/result';
import type { CalibrationReply, CalibrationRequest, ProbeCurve } from './protocol';

/** The log of a trial as the found station would have made it; nothing for a trial of another kind. */
function logOf(station: Station, found: Calibration, trial: Trial): ProbeCurve[][] {
  if (trial.kind !== 'log') return [];
  const unknowns = {
    outletEfficiency: found.outletEfficiency.value,
    multiplier: found.multiplier.value,
    spreadDiameters: found.spreadDiameters.value,
    outletLagS: found.outletLagS.value,
    ...{ heatShare: 1, probeShare: 1 },
  };
  const durationS = Math.max(...trial.probes.map((p) => p.readC.length)) - 1;
  const curves = blowCoupon(station, unknowns, { ...trial, durationS });
  return [trial.probes.map(({ place }) => ({ name: place, readC: [...curves[place]] }))];
}

const post = (reply: CalibrationReply): void => self.postMessage(reply);

self.onmessage = ({ data: { station, trials } }: MessageEvent<CalibrationRequest>): void => {
  try {
    const next = nextTrial(station, trials);
    if (trials.length === 0) return post({ kind: 'done', next });
    const fit = fitStation(station, trials);
    post(
      fit.ok
        ? { kind: 'done', calibration: fit.value, next, computed: trials.flatMap((t) => logOf(station, fit.value, t)) }
        : { kind: 'done', refused: problemText(fit.problems), next },
    );
  } catch (error) {
    post({ kind: 'problem', words: `The calibration stopped: ${(error as Error).message}` });
  }
};

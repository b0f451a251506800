import { fitStation, loggedBy, nextTrial } from '@/core/calibration';
import { problemText } from '@/core/result';
import type { CalibrationReply, CalibrationRequest } from './protocol';

const post = (reply: CalibrationReply): void => self.postMessage(reply);

self.onmessage = ({ data: { station, trials } }: MessageEvent<CalibrationRequest>): void => {
  try {
    const next = nextTrial(station, trials);
    if (trials.length === 0) return post({ kind: 'done', next });
    const fit = fitStation(station, trials);
    post(
      fit.ok
        ? {
            kind: 'done',
            calibration: fit.value,
            next,
            computed: trials.flatMap((t) => (t.kind === 'log' ? [loggedBy(station, fit.value, t)] : [])),
          }
        : { kind: 'done', refused: problemText(fit.problems), next },
    );
  } catch (error) {
    post({ kind: 'problem', message: `The calibration stopped: ${(error as Error).message}` });
  }
};

'use client';

import { useEffect, useState } from 'react';
import type { Trial } from '@/core/calibration';
import type { Station } from '@/core/heat';
import { calibrateInWorker } from '@/workers/calibration/client';
import type { CalibrationReply } from '@/workers/calibration/protocol';

export type Fit = Extract<CalibrationReply, { kind: 'done' }>;

/** What the trials say, computed in a worker whenever they change; undefined while it computes. */
export function useCalibration(station: Station, trials: readonly Trial[]): { fit?: Fit; problem?: string } {
  const [told, setTold] = useState<{ trials: readonly Trial[]; fit?: Fit; problem?: string }>();
  useEffect(() => {
    const run = calibrateInWorker({ station, trials });
    void run.answer.then((answer) => {
      if (answer.kind === 'done') setTold({ trials, fit: answer });
      else if (answer.kind === 'problem') setTold({ trials, problem: answer.message });
    });
    return run.cancel;
  }, [station, trials]);
  return told?.trials === trials ? told : {};
}

'use client';

import { useMemo } from 'react';
import type { Trial } from '@/core/calibration';
import type { Station } from '@/core/heat';
import { calibrationTask, type StationFit } from '@/workers/calibration/task';
import { useComputed } from '@/workers/use-worker-task';

/** What the trials say, computed in a worker whenever they change; undefined while it computes. */
export function useCalibration(station: Station, trials: readonly Trial[]): { fit?: StationFit; problem?: string } {
  const request = useMemo(() => ({ station, trials }), [station, trials]);
  const { status } = useComputed(calibrationTask, request);
  if (status.kind === 'done') return { fit: status.value };
  return status.kind === 'problem' ? { problem: status.message } : {};
}

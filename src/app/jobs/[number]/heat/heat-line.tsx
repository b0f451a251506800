'use client';

import { HeatEntry } from '@/features/heat/heat-entry';
import { enterLine, settleEntry } from '@/features/job/actions';
import { useJobCommands } from '@/features/job/job-commands';

/** The plan's entry line with the job's own lines and keys. */
export function HeatLine({ job }: { job: Parameters<typeof useJobCommands>[0] }) {
  return <HeatEntry enterJobLine={enterLine} settle={settleEntry} commands={useJobCommands(job)} />;
}

'use client';

import { Box } from '@chakra-ui/react';
import type { Port } from '@/core/board';
import type { JobView, KeepEvent, OutsideView } from '@/core/job';
import { TraceDrawing } from '@/drawings/trace-drawing';
import { TraceTools, useTraceDesk, withLive } from './trace-tools';

interface TraceViewProps {
  readonly job: JobView;
  readonly port: Port;
  readonly outside: OutsideView;
  readonly onKeep: KeepEvent;
}

/** Meter traces of both plug ways on one time axis, cut into named segments: from files, or live. */
export function TraceView({ job, port, outside, onKeep }: TraceViewProps) {
  const desk = useTraceDesk();
  const ways = withLive(outside.ways, desk);
  return (
    <>
      <TraceTools job={job} port={port} expected={outside.expected} desk={desk} onKeep={onKeep} />
      {ways.some((w) => w.trace) ? (
        <TraceDrawing ways={ways} expected={outside.expected} />
      ) : (
        <Box color="quiet">
          No trace yet: the CSV of any USB meter will do. Plug in, wait a minute, save, load it here; then the other way
          round.{job.simulators && ' Or let the simulated meter run.'}
        </Box>
      )}
    </>
  );
}
